"""Every verdict as a page to read: its rule, its limits with their reasons, what it cannot know.

Made from the limits and words the core judges by, so it cannot say anything else.
"""

from typing import Final

from ringside.hear.bands import OCTAVE_EDGE, PUNCH_OCTAVES, TUNING_SPREAD
from ringside.hear.barriers import BRIGHT_N, MOST_LOSS_DB
from ringside.hear.bends import KEPT_OUT_DB
from ringside.hear.byair import OPPOSED_DB, SURFACE_LEADS_DB
from ringside.hear.mirrors import FADES_FROM, FADES_TO
from ringside.pairs.kinds import NEAR_COINCIDENT_M
from ringside.pairs.uncertainty import COVERAGE
from ringside.pairs.verdicts import VERDICT_WORDS, Kind, Verdict
from ringside.plan.layout import VerdictWord
from ringside.plan.thresholds import REASONS, Thresholds

HEAD: Final = "<!-- Written by ./ringside types from the core; do not edit. -->\n\n"

LIMITS_OF: Final[dict[Verdict, tuple[str, ...]]] = {
    Verdict.NO_MATTER: ("no_matter_level_db", "takes_db", "picture_takes_db"),
    Verdict.ASK_THE_EAR: ("head_plane_deg", "null_db", "reflection_db", "same_angle_deg"),
    Verdict.HOLLOW: ("hollow_gain_db",),
    Verdict.LATE: ("echo_ms",),
    Verdict.BEHIND: ("behind_ms",),
    Verdict.TOGETHER: (),
}
ORDER: Final = (
    Verdict.NO_MATTER, Verdict.ASK_THE_EAR, Verdict.HOLLOW, Verdict.LATE, Verdict.BEHIND,
    Verdict.TOGETHER,
)  # fmt: skip

RULES_OF: Final[dict[Verdict, str]] = {
    Verdict.NO_MATTER: (
        "In the current balance (each mic's own job at one peak, then its fader) the two are too"
        " far apart in level for a comb to be heard; or they can take too little from the drum,"
        " because what else is up covers them; or one is muted, not recorded, or the side of a"
        " mid-side pair, which mono does not have."
    ),
    Verdict.ASK_THE_EAR: (
        "The first half-wave of one cannot be planned, and a flip would be heard. Near the plane of"
        " a head its two faces cancel; in the null of a pattern what is heard is a reflection; a"
        f" reflection of opposite sign within half a period, no more than {OPPOSED_DB:g} dB under"
        " what leads, may turn it over. Doubts stand side by side and each is told with the mic it"
        " is of. Two that see a head alike, or stand at one point, are compared all the same:"
        " whatever turns one over turns the other. Neither body is sure then; both are given."
    ),
    Verdict.HOLLOW: (
        "Flipping one gains body: the energy of the sum over the octave round the fundamental"
        f" (from {1 / OCTAVE_EDGE:.3f} to {OCTAVE_EDGE:.3f} of it), as wired and flipped. A cymbal"
        " has no body to lose."
    ),
    Verdict.LATE: (
        f"A dip of the sum lies where it counts. For two mics put up for one drum, up to"
        f" {PUNCH_OCTAVES:g} octaves over the fundamental; for a stereo pair that stands more than"
        f" {NEAR_COINCIDENT_M * 100:.0f} cm apart, on snare and kick, up to the attack; for a mid"
        " and its side, in the decoded speakers. For two of unlike jobs only what is heard as a"
        " second stroke is late."
    ),
    Verdict.BEHIND: (
        "Two of unlike jobs, a spot and an overhead, anything and a room mic, are further apart"
        " than one event. The ear takes the first and hears the later one as distance. Nothing to"
        " mend: polarity has been asked before, and how far behind it is stands in the sentence."
    ),
    Verdict.TOGETHER: (
        "None of these. Time within a stereo picture is how it tells left from right, so its"
        " cymbals and toms are together whatever their time is; the sentence says where each"
        " appears and what mono keeps."
    ),
}

UNKNOWN: Final[dict[Verdict, str]] = {
    Verdict.NO_MATTER: (
        "How the other mics line up: they add as energies here. Where nobody has set a fader, what"
        " is usual for the role counts."
    ),
    Verdict.ASK_THE_EAR: (
        "Heads that do not move as one, a shell in the way of the reflection, the drummer."
    ),
    Verdict.HOLLOW: "How each drum really rings: the octave is taken evenly.",
    Verdict.LATE: "How loud the drum is played, and what else covers the dip.",
    Verdict.BEHIND: "How dense the playing is; fast strokes mask a distance that slow ones show.",
    Verdict.TOGETHER: "What a sum of more than two makes; see the best set of flips.",
}

KINDS: Final[dict[Kind, str]] = {
    Kind.APART: "of unlike jobs: polarity, and how far one is behind",
    Kind.SAME: "put up for one drum: one sound, up to its punch",
    Kind.PICTURE: "a stereo pair: its picture and its mono; equal on snare and kick when spaced",
    Kind.DECODED: "a mid with its side: judged as decoded; a flip changes left and right over",
    Kind.SIDE: "one is a side and the other not its mid: gone in mono",
}


def _verdict(verdict: Verdict) -> list[str]:
    word: VerdictWord = VERDICT_WORDS[verdict]
    limits = Thresholds()
    rows = [
        f"| `{name}` | {getattr(limits, name):g} | {REASONS[name]} |" for name in LIMITS_OF[verdict]
    ]
    table = ["| limit | value | reason |", "|---|---|---|", *rows, ""] if rows else []
    return [f"## {word.capitalize()}\n", f"{RULES_OF[verdict]}\n", *table,
            f"**Not known.** {UNKNOWN[verdict]}\n"]  # fmt: skip


def _levels() -> list[str]:
    limits = Thresholds()
    return [
        "## Levels\n",
        "All levels are those of the current balance: each mic's own job at one peak, then"
        " its fader, or what is usual for its role. What a split feeds adds with its signs;"
        " what is compressed raises what is quiet in it. E is the energy of all that is up of"
        " a drum; two mics that have it at a and b swing by (E + 2ab)/(E - 2ab), in its body"
        " by as much of 2ab as is alike.\n",
        f"Gain is told apart from that: {limits.under_full_db:g} dB. {REASONS['under_full_db']}\n",
    ]


def _sure() -> list[str]:
    limits = Thresholds()
    spreads = ", ".join(f"{how} {share:.1%}" for how, share in TUNING_SPREAD.items())
    return [
        "## How sure\n",
        f"An interval is {COVERAGE:g} standard deviations either way, about 95 in 100 (JCGM"
        " 100:2008). A verdict is asked again along it; the gravest other one it meets is what it"
        " could tip to.\n",
        "| what | one standard deviation | from |",
        "|---|---|---|",
        *(
            f"| {what} | {getattr(limits, name):g} {unit} | {REASONS[name]} |"
            for what, name, unit in (
                ("tape", "tape_error_m", "m"),
                ("air", "air_error_c", "°C"),
                ("stroke", "strike_spread_m", "m"),
            )
        ),
        f"| tuning | {spreads} | Estimated from kind and size: one size is tuned anywhere within"
        " about a fifth (common practice). As a note: to the nearest semitone. Measured: the lugs"
        " of a drum in tune differ by a hundredth (common practice). |",
        "",
    ]


def _near() -> list[str]:
    limits = Thresholds()
    near = limits.near_surface_m * 100
    return [
        "## What is counted near a mic\n",
        f"- A floor, wall or ceiling: its image is the mic's own sound up to"
        f" {near * FADES_FROM:.0f} cm and fades out of it until {near * FADES_TO:.0f} cm. One that"
        f" sends {SURFACE_LEADS_DB:g} dB more than the drum does straight is what is heard first.",
        "- Nearness: the gradient share of a pattern grows by 1 + 1/(jkr) (figure-8 at 5 cm and 100"
        " Hz +20.8 dB, cardioid on axis +14.9, omni nothing; Eargle, The Microphone Book). Beside a"
        " head r is √(z² + R²), as on the axis of a vibrating disc, so that touching it is not"
        " endless. The low cut in use works against it, phase and all.",
        f"- Gobos and foam: Kurze and Anderson 1971 over each edge, from N = {BRIGHT_N:g} to about"
        f" 12, {MOST_LOSS_DB:.0f} dB at most; the way round is longer. What goes through them and"
        " what they send back is left out.",
        "- A wall: to a mic next door the way is by the door that leads there, and in an L round"
        " its inner corner, where as much is lost as past a gobo. A doorway lets through what two"
        " slits do, by Fresnel's integrals (Born and Wolf, Principles of Optics, 8.7): a low note"
        " finds it a small hole."
        f" A shut door keeps out {KEPT_OUT_DB['shut door']:.0f} dB more; where none leads there the"
        f" way is straight through the wall, {KEPT_OUT_DB['wall']:.0f} dB down.",
        "",
    ]


def verdicts_page() -> str:
    """The verdicts as Markdown.

    Returns
    -------
    str
    """
    lines = [
        HEAD + "# The verdicts\n",
        "A verdict is reached for each pair of mics on each drum and cymbal; the first that holds,"
        " in this order. The worst of a pair is taken over what the two are put up for. Every limit"
        " can be changed for a layout under Pairs.\n",
        "What is asked depends on what the two are to each other:\n",
        *(f"- {words}" for words in KINDS.values()),
        "",
    ]
    for verdict in ORDER:
        lines += _verdict(verdict)
    return "\n".join([*lines, *_levels(), *_sure(), *_near()])

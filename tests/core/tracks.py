"""Mics and their tracks changed together, as tests want them."""

from ringside.plan.channels import Channel
from ringside.plan.hanging import with_channels, with_tracks


def with_mic(layout, mic_id, **change):
    """The layout with fields of a mic, or of its channels, as given."""
    of_track = {k: v for k, v in change.items() if k in Channel.model_fields and k != "pad_db"}
    of_mic = {k: v for k, v in change.items() if k not in of_track}
    done = layout.with_mic(layout.mic(mic_id).model_copy(update=of_mic))
    if not of_track:
        return done
    tracks = (c for c in with_tracks(done).channels if c.mic == mic_id)
    changed = tuple(c.model_copy(update=of_track) for c in tracks)
    return with_channels(with_tracks(done), changed)


def with_each(layout, changes):
    """`with_mic` for several mics, by short name."""
    for name, change in changes.items():
        layout = with_mic(layout, name, **change)
    return with_tracks(layout)

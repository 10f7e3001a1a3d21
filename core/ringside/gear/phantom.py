"""Whether an input gives phantom, said once for every rule that asks."""

from ringside.gear.locker import MicModel
from ringside.plan.channels import Channel


def phantom_of(channel: Channel, model: MicModel | None) -> bool | None:
    """Whether phantom is on at an input: as set, else as the mic wants it.

    Parameters
    ----------
    channel : Channel
    model : MicModel or None
        The mic of the locker, where it is known.

    Returns
    -------
    bool or None
        None where neither is known.
    """
    if channel.phantom is not None:
        return channel.phantom
    return model.phantom if model else None


def hurt_by_phantom(model: MicModel | None) -> bool:
    """Whether phantom can hurt a mic: a ribbon that does not ask for it itself.

    A ribbon with an amplifier inside wants phantom and takes no harm (common practice).

    Parameters
    ----------
    model : MicModel or None

    Returns
    -------
    bool
        False where the mic is not known.
    """
    return model is not None and model.kind == "ribbon" and not model.phantom

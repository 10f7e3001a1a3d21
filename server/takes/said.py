"""What may be said of a take: which channel a track is, which drum a stroke."""

from typing import Annotated

from pydantic import Field, StringConstraints

TrackName = Annotated[str, Field(min_length=1, max_length=140)]
Stroke = Annotated[str, StringConstraints(pattern=r"^\d{1,7}$")]
"""The millisecond it begins at."""

ShortName = Annotated[str, Field(min_length=1, max_length=16)]

Channels = Annotated[dict[TrackName, ShortName | None], Field(max_length=64)]
Drums = Annotated[dict[Stroke, ShortName | None], Field(max_length=2000)]

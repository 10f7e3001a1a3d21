"""What is asked of pairs."""

from ringside.pairs.onebyone import FirstSchool

from api.common import Id, LayoutOnly, Word


class PairIn(LayoutOnly):
    """A pair on a drum: `a` stands, `b` rather moves; without a source its worst."""

    a: Word
    b: Word
    source: Word | None = None


class WorklistIn(LayoutOnly):
    """A layout, and the stored one whose takes tell what the plan leaves open."""

    of: Id | None = None


class RowsIn(LayoutOnly):
    """All pairs on one source, or each on its worst."""

    source: Word | None = None


class OrderIn(LayoutOnly):
    """The layout's own order of adding, or a school's."""

    first: FirstSchool | None = None


class OptionsIn(LayoutOnly):
    """A set of options, by its short name."""

    set: Word

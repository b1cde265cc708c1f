"""The nine schools as ready methods, to be taken as they are or copied and changed (common
practice, no source; the machine card test after ISO 8442-5, recalled from memory).
"""

from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import (
    DosePart,
    Method,
    Stage,
    StopRule,
    force_limit_rope,
)

_ROPE = (
    "Cut away from the body, with a cut-resistant glove on the hand that holds; clamp the rope.",
    "Eye protection: rope under tension whips.",
    "Stop when the hand tires; most cuts happen late in a long run.",
)
_BOARD = (
    "Cut away from the body, with a cut-resistant glove on the hand that holds.",
    "Stop when the hand tires; most cuts happen late in a long run.",
)
_TAPE = "The edge struck tape, a staple, a seam or the board under it."
_STRUCK = "The edge struck the board, the clamp or a knot hard."

_FORCE_LIMIT = force_limit_rope()

SCHOOLS: tuple[Method, ...] = (
    Method(
        school="force_limit_rope",
        name="Force-limit rope series",
        contact_mm=None,
        checks=(CheckSpec("force", material="test line"),),
        stages=_FORCE_LIMIT.stages,
        ends=_FORCE_LIMIT.ends,
        spoiled_when=_STRUCK,
        cautions=_ROPE,
        note=(
            "Thick natural-fibre rope, the whole diameter sliced through; edge taped "
            "to a set length."
        ),
    ),
    Method(
        school="paper_stop_rope",
        name="Paper-stop rope series",
        checks=(CheckSpec("paper", readings=2, material="office paper, 80 g/m²"),),
        stages=(Stage("rough", "paper", lost_on=("doubt", "fail")), Stage("working", "paper")),
        ends=(StopRule("limit", "working", "none"),),
        schedule="every",
        every=5,
        spoiled_when=_STRUCK,
        cautions=_ROPE,
        note=(
            "Thin twisted rope on softwood; ends when a held sheet is no longer "
            "sliced, two tries each time."
        ),
    ),
    Method(
        school="two_stage_board",
        name="Two-stage cardboard run",
        medium="board",
        surface="none, held free",
        count_unit="ft",
        piece=1.0,
        checks=(
            CheckSpec("hair_sample", readings=2, material="hair sample off the body"),
            CheckSpec("paper", readings=2, material="thin paper"),
        ),
        stages=(Stage("fine", "hair_sample"), Stage("working", "paper")),
        ends=(StopRule("stages"),),
        schedule="geometric",
        every=10,
        growth=1.25,
        spoiled_when=_TAPE,
        cautions=_BOARD,
        note=(
            "Corrugated board, length counted; stage 1 ends with the fine edge, stage "
            "2 with the working edge."
        ),
    ),
    Method(
        school="push_cut_board",
        name="Push-cut board run",
        medium="board",
        cut="push",
        surface="none, held free",
        contact_mm=25.0,
        zone_length_mm=25.0,
        checks=(
            CheckSpec("inspect", material="lamp, 10x"),
            CheckSpec("hair_sample", readings=2, material="hair sample off the body"),
            CheckSpec("paper", readings=2, material="thin paper"),
        ),
        stages=(Stage("deformation", "inspect"), Stage("fine", "hair_sample"), Stage("working",
            "paper")),
        ends=(StopRule("stages"),),
        schedule="every",
        every=5,
        spoiled_when=_TAPE,
        cautions=_BOARD,
        note=(
            "Board pushed through on a marked zone; the apex is checked under a lamp "
            "after every batch."
        ),
    ),
    Method(
        school="fixed_dose",
        name="Fixed-dose comparison",
        checks=(CheckSpec("force", readings=3, material="test line"),),
        stages=(),
        ends=(StopRule("dose", amount=50),),
        schedule="ends",
        spoiled_when=_STRUCK,
        cautions=_ROPE,
        note=(
            "The same number of cuts for each blade, read before and after; the "
            "untouched zone is the control."
        ),
    ),
    Method(
        school="mixed_media_dose",
        name="Mixed-media dose",
        medium="mixed",
        checks=(CheckSpec("force", readings=3, material="test line"),),
        stages=(),
        ends=(StopRule("dose", amount=60),),
        schedule="ends",
        recipe=(
            DosePart("rope", 20), DosePart("board", 30, "ft"),
            DosePart("abrasive sheet", 10, "strokes"),
        ),
        spoiled_when=_TAPE,
        cautions=(*_ROPE, "Abrasive paper: eye protection; keep the dust out of the lungs."),
        note="A written recipe over several media, read before and after.",
    ),
    Method(
        school="resharpening_cycles",
        name="Resharpening cycles",
        checks=(CheckSpec("force", material="test line"),),
        stages=_FORCE_LIMIT.stages,
        ends=(StopRule("limit", "dull", "same_count"), StopRule("cycles", amount=6)),
        schedule="every",
        every=4,
        spoiled_when=_STRUCK,
        cautions=(*_ROPE, "Grinding and stropping dust: wet or masked."),
        note="Dirty rope to the limit, then the same light sharpening, round after round.",
    ),
    Method(
        school="geometry_layers",
        name="Geometry run",
        medium="board",
        surface="none, held free",
        count_unit="layers",
        checks=(CheckSpec("effort", material="board, layers taped edge to edge"),),
        stages=(),
        ends=(StopRule("dose", amount=6),),
        schedule="at",
        at=(1, 2, 4, 6),
        spoiled_when=_TAPE,
        cautions=_BOARD,
        note="Board in 1, 2, 4 and 6 layers; effort from 0 to 10 at each.",
    ),
    Method(
        school="machine_card",
        name="Machine card test",
        medium="card",
        cut="stroke",
        surface="machine, fixed load and stroke",
        count_unit="cycles",
        checks=(CheckSpec("depth", material="card with silica"),),
        stages=(),
        ends=(StopRule("dose", amount=60),),
        schedule="every",
        every=1,
        spoiled_when="The card slipped in its clamp.",
        cautions=(
            "Hands out of the machine while it strokes; lock it before the blade "
            "is touched.",
        ),
        note=(
            "Card stack with silica, 60 cycles: initial cutting performance over 3, "
            "edge retention over all."
        ),
    ),
)  # fmt: skip  # a table is read by its rows
BY_SCHOOL = {method.school: method for method in SCHOOLS}

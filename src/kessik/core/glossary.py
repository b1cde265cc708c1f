"""The tester's glossary: what each term on screen means, in a sentence."""

from collections.abc import Mapping

TERMS: Mapping[str, str] = {
    "trial": "One question put to several blades under one method: one thing varies, the rest is"
    " held equal.",
    "arm": "What a trial compares: a blade, or one blade under a stated preparation, such as coarse"
    " or stropped.",
    "block": "Runs that share a piece, a day or a person, so that what they share cancels out of"
    " their ratio. Give each piece or day one number.",
    "settled edge": "An edge that counts: the first edges after new or after damage are cut into"
    " fatigued steel and read low. Which ones count is fixed before the first cut.",
    "standing": "How a value is known: measured here or elsewhere, from a standard or the"
    " literature, claimed by the maker, or guessed. Only measured values make a comparison fair.",
    "stage": "A level of sharpness that is lost during a run, such as keen and dull (force limits)"
    " or fine and working (pass and fail).",
    "keen": "The first force limit: above it the edge is no longer keen; 300 gf unless you change"
    " it.",
    "dull": "The second force limit: above it the edge is dull; 400 gf unless you change it.",
    "life": "The count, or the length cut, at which a stage is lost, with an interval.",
    "cutting work": "How much sharpness lay under the limit on the way to a life: force below the"
    " limit, summed over the cuts.",
    "control": "A check at a place of the edge that was not cut: it shows what the edge still does"
    " there, and never bounds a life.",
    "zone": "A stretch of the edge, in mm from the heel. Zones of one edge are not independent"
    " edges.",
    "check": "A test of sharpness at one count: a reading, a pass or fail, a grade, or the apex"
    " under a lamp.",
    "exposure": "Area of medium cut per millimetre of edge, mm²/mm. It puts runs in one medium on"
    " equal footing.",
    "scatter": "How far repeats of one thing lie apart, as a percentage: readings of one edge by"
    " some 7 %, lives of edges of one blade by some 4 %. A gauge study tells yours.",
    "strop-back": "Sharpness regained by stropping alone, as a share of what was lost.",
    "verification": "A second run on a fresh edge that repeats an earlier one; the first result is"
    " hidden until it stops.",
    "coupon": "One thing exposed in a soak: a blade, one side of it, or a piece of steel, as it was"
    " prepared.",
    "round": "All inspections of a soak that belong to one planned hour, whatever minute each side"
    " was seen.",
    "phase": "A stretch of a soak in a medium of its own, with its own answer.",
    "baseline": "The coupon of a soak that must rust, so that you know the soak was severe enough.",
    "undecidable": "The shots fit the claimed grade and others as well: neither confirmed nor"
    " excluded.",
}

"""What the log says: what happened, hours, slips, cost."""

from datetime import date

from fennup.app.wording.finish import TASK_NAMES, day_words, how_many, task_name
from fennup.core.log.slips import Sort
from fennup.core.records.entry import About

STEPS = {
    "plan": "Planning and drawing", "cut": "Cutting", "smooth": "Smoothing", "fit": "Fitting dry", "glue": "Gluing", "fasten": "Fastening", "coat": "Coating",
    "setup": "Setting up", "other": "Something else",
}  # fmt: skip
SLIPS: dict[Sort, tuple[str, str]] = {
    "short": ("Cut too short", "Set the stop by the line to measure along, and measure the first of its like before the others."),
    "long": ("Cut too long", "A shave mends it; then move the stop by as much."),
    "narrow": ("Ripped too narrow", "Measure from the fence to the tooth that leans towards it, and rip the first of its like in scrap."),
    "wide": ("Ripped too wide", "Rip once more; then move the fence by as much."),
    "angle": ("Cut at another angle", "Try the setting in two scraps and measure over both: the error shows twice."),
    "mirrored": ("Cut the wrong way round", "Mark the face and the long point on the wood before it goes to the saw."),
    "spoiled": ("Spoiled in another way", "Write down what happened: then it comes back where it can help."),
}  # fmt: skip
MEASURED = {
    "length": "length", "width": "width", "face": "angle of the end", "tilt": "tilt of the end", "pair": "the pair, flat", "pair_tilt": "the pair, standing",
    "spread": "longest less shortest",
}  # fmt: skip
RESCUES = {"recut": "cut again from new wood", "use": "used as another part", "shave": "shaved", "keep": "kept as it is"}
BATCHES = {"wood": "Wood", "glue": "Glue", "finish": "Finish", "fasteners": "Fasteners", "other": "Other"}
USES = {"wear": "Wear", "temperature": "Temperature", "moved": "Moved", "coated": "Coated again"}
USE_UNITS = {"temperature": "°C", "moved": "mm"}
WORKS = {
    "rough": "Cutting boards apart", "rip": "Ripping", "taper": "Sawing tapers", "outline": "Sawing outlines", "first_end": "First ends", "second_end": "Second ends",
    "lap": "Half laps", "birdsmouth": "Birdsmouths", "rabbet": "Rabbets", "groove": "Grooves", "chamfer": "Chamfers", "round": "Roundings", "cove": "Coves", "tongue": "Tongues", "milled": "Profiles", "glue_up": "Gluing up", "holes": "Drilling", "scribe": "Scribing", "test": "Test cuts",
    "saw_apart": "Sawing a lid off",
}  # fmt: skip
JOINTS = {
    "miter": "miters",
    "butt": "butted joints",
    "edge": "edge joints",
    "lap": "half laps",
    "face": "faces laid on each other",
}
DEFER_SALE = "Whoever sells what carries people or what children use answers for it: ask what holds where you live."


def work_name(work: str) -> str:
    """Work on the wood, as the log calls it."""
    return WORKS.get(work, work.replace("_", " ").capitalize())


def about_name(about: About, tools: dict[str, str]) -> str:
    """Where a lesson comes back. `tools`: types of tools by what they are called."""
    said = []
    if about.work:
        said.append(work_name(about.work))
    if about.task:
        said.append(TASK_NAMES.get(about.task, "Coats" if about.task == "coat" else task_name(about.task)))
    if about.joint:
        said.append(JOINTS.get(about.joint, about.joint))
    if about.slope_deg is not None:
        said.append(f"where something leans about {about.slope_deg:.0f}°")
    if about.wood:
        said.append(f"in {about.wood}")
    if about.tool:
        said.append(f"on the {tools.get(about.tool, about.tool.replace('_', ' '))}")
    text = ", ".join(said)
    return f"{text[:1].upper()}{text[1:]}"


def day_label(day: date) -> str:
    """`Sat 28 Nov 2026`."""
    return f"{day_words(day)} {day.year}"


def money(value: float, currency: str) -> str:
    """`12.50 EUR`."""
    return f"{value:.2f} {currency}".replace("-", "−").strip()


def slip_count(count: int) -> str:
    """How often."""
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def pieces(count: int) -> str:
    """`3 pieces`."""
    return how_many(count, "piece")

"""An assembly's own drawings on the papers of its project: where it is turned, another one of them is seen there, or none."""

from dataclasses import dataclass, replace

from fennup.core.drawing.view import Dimension, Grip, Mark
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.gauged import ABOVE, PAPERS, Paper
from fennup.core.kinds.registry import Kind
from fennup.core.project.stance import Stance
from fennup.core.tolerances import NOTHING


@dataclass(frozen=True)
class OnPaper:
    """One of an assembly's own drawings, flat on a paper of the project: its name, where its directions to the right and up go, and its
    origin."""

    view: str
    right: Point2
    up: Point2
    shift: Point2

    def way(self, p: Point2) -> Point2:
        """A direction of the drawing on the paper."""
        return (self.right[0] * p[0] + self.up[0] * p[1], self.right[1] * p[0] + self.up[1] * p[1])

    def flat(self, p: Point2) -> Point2:
        """A place of the drawing on the paper."""
        x, y = self.way(p)
        return (x + self.shift[0], y + self.shift[1])

    def back(self, p: Point2) -> Point2:
        """A place of the paper on the drawing."""
        x, y = p[0] - self.shift[0], p[1] - self.shift[1]
        return (self.right[0] * x + self.right[1] * y, self.up[0] * x + self.up[1] * y)

    @property
    def mirrored(self) -> bool:
        """Whether it is seen from behind."""
        return self.right[0] * self.up[1] - self.right[1] * self.up[0] < 0

    def dimension(self, d: Dimension) -> Dimension:
        """A dimension line where it then stands."""
        a, b = (self.way(p) if d.about else self.flat(p) for p in (d.a, d.b))
        if d.about and self.mirrored:
            a, b = b, a
        about, at = (None if p is None else self.flat(p) for p in (d.about, d.at))
        return replace(d, a=a, b=b, about=about, at=at, away=self.way(d.away))

    def grip(self, grip: Grip) -> Grip:
        """A ring where it then stands."""
        return replace(grip, at=self.flat(grip.at), along=self.way(grip.along) if grip.along else None)

    def mark(self, mark: Mark) -> Mark:
        """A letter where it then stands."""
        return replace(mark, at=self.flat(mark.at))


def lying_on(kind: Kind, stance: Stance, paper: Paper) -> OnPaper | None:
    """That of an assembly's own drawings which is seen in its true size on a paper; nothing where it stands askew. What lies with its
    face to the reader has its one drawing from above."""
    own = {p.id: p for p in PAPERS} if kind.stands else {"front": ABOVE}
    order = sorted(own, key=lambda id: id != paper.id)
    for id in order:
        lies = stance.paper(own[id])
        right, up = paper.flat(lies.right), paper.flat(lies.up)
        if abs(right[0] * up[1] - right[1] * up[0]) > 1 - NOTHING:
            return OnPaper(id, right, up, paper.flat(stance.shift))
    return None

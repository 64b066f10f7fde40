"""Vectors as plain tuples of floats: on arrays this small they are quicker than array objects."""

from math import sqrt

Vec = tuple[float, float, float]
Point2 = tuple[float, float]


def add(a: Vec, b: Vec) -> Vec:
    """a + b."""
    return (a[0] + b[0], a[1] + b[1], a[2] + b[2])


def sub(a: Vec, b: Vec) -> Vec:
    """a - b."""
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def scale(a: Vec, k: float) -> Vec:
    """a times the number k."""
    return (a[0] * k, a[1] * k, a[2] * k)


def dot(a: Vec, b: Vec) -> float:
    """Inner product."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vec, b: Vec) -> Vec:
    """Right-handed outer product."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def norm(a: Vec) -> float:
    """Length of a."""
    return sqrt(dot(a, a))


def unit(a: Vec) -> Vec:
    """a at length 1; ZeroDivisionError for the zero vector."""
    return scale(a, 1.0 / norm(a))


def distance(a: Vec, b: Vec) -> float:
    """Distance between two points."""
    return norm(sub(a, b))

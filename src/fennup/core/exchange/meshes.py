"""The finished parts as meshes, and these as STL, GLB and 3MF. The same design gives the same bytes."""

import json
import struct
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from io import BytesIO
from xml.sax.saxutils import quoteattr
from zipfile import ZipFile

import numpy as np
from numpy.typing import NDArray

from fennup.core.assembly.board import Board
from fennup.core.design import Design
from fennup.core.exchange.fixed import add_to
from fennup.core.geometry.frame import Frame
from fennup.core.verify.boolean import in_one

WOOD = (0.78, 0.62, 0.42, 1.0)
FOUND = (0.62, 0.62, 0.6, 1.0)
GLB_MAGIC, GLB_JSON, GLB_BIN = 0x46546C67, 0x4E4F534A, 0x004E4942
ARRAY_BUFFER, ELEMENT_BUFFER, FLOAT, UINT = 34962, 34963, 5126, 5125


@dataclass(frozen=True)
class Mesh:
    """One board closed all round: its corners in its own axes, mm (n by 3), its triangles anticlockwise seen from outside (m by 3), and where it lies."""

    key: str
    name: str
    points: NDArray[np.float64]
    triangles: NDArray[np.int64]
    frame: Frame
    found: bool

    @property
    def placed(self) -> NDArray[np.float64]:
        """Its corners in the assembly's axes, mm."""
        return np.array([self.frame.to_world((x, y, z)) for x, y, z in self.points.tolist()])


def meshes_of(design: Design, names: Mapping[str, str]) -> list[Mesh]:
    """Every board as a mesh, in the design's order; `names`: what each is called."""
    return [_mesh(board, names.get(board.id, board.id)) for board in design.assembly.boards]


def _mesh(board: Board, name: str) -> Mesh:
    """A board cut in one, so that no wall is left inside."""
    made = in_one(board).to_mesh64()
    points = np.asarray(made.vert_properties, dtype=np.float64)[:, :3]
    return Mesh(board.id, name, points, np.asarray(made.tri_verts, dtype=np.int64), board.frame, board.found)


def stl(meshes: Iterable[Mesh]) -> bytes:
    """STL as text, mm, every board a solid of its own where it stands; text, as the binary form has half the digits."""
    return "".join(_facets(mesh) for mesh in meshes).encode("ascii", "replace")


def _facets(mesh: Mesh) -> str:
    corners = mesh.placed[mesh.triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normals /= np.linalg.norm(normals, axis=1, keepdims=True)
    name = mesh.key.replace(" ", "_")
    lines = [f"solid {name}"]
    for normal, triangle in zip(normals.tolist(), corners.tolist(), strict=True):
        lines.append(f"facet normal {_spaced(normal)}\n outer loop")
        lines += [f"  vertex {_spaced(corner)}" for corner in triangle]
        lines.append(" endloop\nendfacet")
    return "\n".join([*lines, f"endsolid {name}", ""])


def _spaced(values: Iterable[float]) -> str:
    return " ".join(f"{value + 0.0:.9g}" for value in values)


def glb(meshes: list[Mesh]) -> bytes:
    """Binary glTF 2: metres, y up, a node for every board with its place; the corners in the board's own axes, so that single precision does."""
    buffer, views, accessors, shapes, nodes = BytesIO(), [], [], [], []
    for number, mesh in enumerate(meshes):
        # Flat sides: every triangle has corners of its own, so that no light is smoothed over an edge.
        corners = (mesh.points[mesh.triangles] / 1000.0).reshape(-1, 3).astype("<f4")
        order = np.arange(len(corners), dtype="<u4")
        for data, target in ((corners.tobytes(), ARRAY_BUFFER), (order.tobytes(), ELEMENT_BUFFER)):
            views.append({"buffer": 0, "byteOffset": buffer.tell(), "byteLength": len(data), "target": target})
            buffer.write(data)
        least, most = (value.astype(float).tolist() for value in (corners.min(axis=0), corners.max(axis=0)))
        accessors.append(
            {"bufferView": 2 * number, "componentType": FLOAT, "count": len(corners), "type": "VEC3", "min": least, "max": most}
        )
        accessors.append({"bufferView": 2 * number + 1, "componentType": UINT, "count": len(order), "type": "SCALAR"})
        material = 1 if mesh.found else 0
        primitive = {"attributes": {"POSITION": 2 * number}, "indices": 2 * number + 1, "material": material}
        shapes.append({"name": mesh.key, "primitives": [primitive]})
        nodes.append({"name": mesh.name, "mesh": number, "matrix": _column_major(mesh.frame)})
    nodes.append({"name": "all", "children": list(range(len(meshes))), "rotation": [-(0.5**0.5), 0.0, 0.0, 0.5**0.5]})
    document = {
        "asset": {"version": "2.0", "generator": "Fennup"}, "scene": 0, "scenes": [{"nodes": [len(meshes)]}], "nodes": nodes,
        "meshes": shapes, "accessors": accessors, "bufferViews": views, "buffers": [{"byteLength": buffer.tell()}],
        "materials": [{"name": name, "pbrMetallicRoughness": {"baseColorFactor": list(color), "metallicFactor": 0.0, "roughnessFactor": 0.9}}
                      for name, color in (("wood", WOOD), ("there already", FOUND))],
    }  # fmt: skip
    text = json.dumps(document, separators=(",", ":")).encode()
    chunks = b"".join(
        _chunk(kind, data, fill) for kind, data, fill in ((GLB_JSON, text, b" "), (GLB_BIN, buffer.getvalue(), b"\0"))
    )
    return struct.pack("<III", GLB_MAGIC, 2, 12 + len(chunks)) + chunks


def _column_major(frame: Frame) -> list[float]:
    """A board's axes and origin as glTF's matrix, metres."""
    columns = [(*frame.x, 0.0), (*frame.y, 0.0), (*frame.z, 0.0), (*(value / 1000.0 for value in frame.origin), 1.0)]
    return [float(value) for column in columns for value in column]


def _chunk(kind: int, data: bytes, fill: bytes) -> bytes:
    data += fill * (-len(data) % 4)
    return struct.pack("<II", len(data), kind) + data


def three_mf(meshes: list[Mesh]) -> bytes:
    """3MF: mm, an object for every board in its own axes, and an item that says where it lies."""
    parts = {
        "[Content_Types].xml": '<?xml version="1.0" encoding="UTF-8"?>\n<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
        '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
        '<Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>\n',
        "_rels/.rels": '<?xml version="1.0" encoding="UTF-8"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
        '<Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>\n',
        "3D/3dmodel.model": "\n".join(_model(meshes)) + "\n",
    }
    out = BytesIO()
    with ZipFile(out, "w") as pack:
        for name, text in parts.items():
            add_to(pack, name, text)
    return out.getvalue()


def _model(meshes: list[Mesh]) -> Iterator[str]:
    yield '<?xml version="1.0" encoding="UTF-8"?>'
    yield '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">'
    yield " <resources>"
    for number, mesh in enumerate(meshes, 1):
        yield f'  <object id="{number}" type="model" name={quoteattr(mesh.name)} partnumber={quoteattr(mesh.key)}><mesh><vertices>'
        for x, y, z in mesh.points.tolist():
            yield f'   <vertex x="{_digits(x)}" y="{_digits(y)}" z="{_digits(z)}"/>'
        yield "  </vertices><triangles>"
        for a, b, c in mesh.triangles.tolist():
            yield f'   <triangle v1="{a}" v2="{b}" v3="{c}"/>'
        yield "  </triangles></mesh></object>"
    yield " </resources>\n <build>"
    for number, mesh in enumerate(meshes, 1):
        rows = (*mesh.frame.x, *mesh.frame.y, *mesh.frame.z, *mesh.frame.origin)
        yield f'  <item objectid="{number}" transform="{" ".join(map(_digits, rows))}"/>'
    yield " </build>\n</model>"


def _digits(value: float) -> str:
    return f"{value + 0.0:.12g}"

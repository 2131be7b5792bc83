"""The solid of a piece as STL and as 3MF; mm, closed."""

import struct
import zipfile
from pathlib import Path
from typing import Any

from machinon.core.errors import MachinonError
from machinon.core.piece.made import Made


def _mesh(made: Made) -> tuple[Any, Any]:
    """Corners (n × 3, mm) and triangles (m × 3) of the solid."""
    import numpy as np

    mesh = made.body.solid.to_mesh()
    corners = np.asarray(mesh.vert_properties, dtype=np.float64)[:, :3]
    return corners, np.asarray(mesh.tri_verts, dtype=np.int64)


def write_stl(made: Made, path: Path) -> None:
    """Write the solid as binary STL. Raises MachinonError."""
    import numpy as np

    corners, triangles = _mesh(made)
    a, b, c = (corners[triangles[:, i]] for i in range(3))
    normals = np.cross(b - a, c - a)
    lengths = np.linalg.norm(normals, axis=1, keepdims=True)
    normals = normals / np.where(lengths > 0, lengths, 1.0)
    rows = np.zeros(
        len(triangles),
        dtype=[("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("extra", "<u2")],
    )
    rows["normal"] = normals
    rows["corners"] = np.stack((a, b, c), axis=1)
    head = f"{made.family.name}, mm".encode("ascii", "replace")[:80].ljust(80)
    _save(path, head + struct.pack("<I", len(triangles)) + rows.tobytes())


_TYPES = (
    '<?xml version="1.0" encoding="UTF-8"?>\n'
    '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
    '<Default Extension="rels" '
    'ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
    '<Default Extension="model" '
    'ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/>'
    "</Types>"
)
_RELATIONS = (
    '<?xml version="1.0" encoding="UTF-8"?>\n'
    '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
    '<Relationship Target="/3D/3dmodel.model" Id="rel0" '
    'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/>'
    "</Relationships>"
)


def write_3mf(made: Made, path: Path) -> None:
    """Write the solid as 3MF. Raises MachinonError. Source: 3MF core 1.3."""
    corners, triangles = _mesh(made)
    vertices = "".join(
        f'<vertex x="{x:.6f}" y="{y:.6f}" z="{z:.6f}"/>' for x, y, z in corners
    )
    faces = "".join(f'<triangle v1="{a}" v2="{b}" v3="{c}"/>' for a, b, c in triangles)
    model = (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        '<model unit="millimeter" '
        'xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">'
        '<resources><object id="1" type="model"><mesh>'
        f"<vertices>{vertices}</vertices><triangles>{faces}</triangles>"
        '</mesh></object></resources><build><item objectid="1"/></build></model>'
    )
    beside = path.with_name(f".{path.name}.part")
    try:
        with zipfile.ZipFile(beside, "w", zipfile.ZIP_DEFLATED) as out:
            out.writestr("[Content_Types].xml", _TYPES)
            out.writestr("_rels/.rels", _RELATIONS)
            out.writestr("3D/3dmodel.model", model)
        beside.replace(path)
    except OSError as error:
        raise MachinonError(f"{path} could not be written: {error.strerror}.") from None


def _save(path: Path, data: bytes) -> None:
    beside = path.with_name(f".{path.name}.part")
    try:
        beside.write_bytes(data)
        beside.replace(path)
    except OSError as error:
        raise MachinonError(f"{path} could not be written: {error.strerror}.") from None

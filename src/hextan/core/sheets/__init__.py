"""What is printed and handed out: which sheets, each as data, with its stamp and its fingerprint?"""

from hextan.core.sheets.document import SHEETS_SCHEMA, SheetPlan, Sheets, parse_sheets
from hextan.core.sheets.kinds import KINDS
from hextan.core.sheets.material import Material
from hextan.core.sheets.sheet import (
    Cell,
    PictureRow,
    Shape,
    Sheet,
    SheetColumn,
    SheetPicture,
    SheetPictures,
    SheetRow,
    SheetTable,
    SheetWords,
)
from hextan.core.sheets.view import CAUTION, fingerprint, sheet_of, sheet_title

__all__ = [
    "CAUTION",
    "KINDS",
    "SHEETS_SCHEMA",
    "Cell",
    "Material",
    "PictureRow",
    "Shape",
    "Sheet",
    "SheetColumn",
    "SheetPicture",
    "SheetPictures",
    "SheetPlan",
    "SheetRow",
    "SheetTable",
    "SheetWords",
    "Sheets",
    "fingerprint",
    "parse_sheets",
    "sheet_of",
    "sheet_title",
]

"""Workbooks and texts that were made to hurt whoever reads them."""

import io
import zipfile

_MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"
_PARTS = {
    "[Content_Types].xml": (
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
        '<Default Extension="rels" ContentType='
        '"application/vnd.openxmlformats-package.relationships+xml"/>'
        '<Override PartName="/xl/workbook.xml" ContentType='
        '"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>'
        '<Override PartName="/xl/worksheets/sheet1.xml" ContentType='
        '"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>'
    ),
    "_rels/.rels": (
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
        '<Relationship Id="r1" Target="xl/workbook.xml" Type="http://schemas.openxmlformats.org/'
        'officeDocument/2006/relationships/officeDocument"/></Relationships>'
    ),
    "xl/workbook.xml": (
        f'<workbook xmlns="{_MAIN}" xmlns:r="http://schemas.openxmlformats.org/officeDocument/'
        '2006/relationships"><sheets><sheet name="one" sheetId="1" r:id="r1"/></sheets></workbook>'
    ),
    "xl/_rels/workbook.xml.rels": (
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
        '<Relationship Id="r1" Target="worksheets/sheet1.xml" Type="http://schemas.openxmlformats'
        '.org/officeDocument/2006/relationships/worksheet"/></Relationships>'
    ),
}


def workbook(rows="", before="", kind=""):
    """A workbook of one sheet with these rows, as text of its markup."""
    sheet = f'{kind}<worksheet xmlns="{_MAIN}">{before}<sheetData>{rows}</sheetData></worksheet>'
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in {**_PARTS, "xl/worksheets/sheet1.xml": sheet}.items():
            archive.writestr(name, text)
    return out.getvalue()


def cell(at, value=1):
    return f'<c r="{at}"><v>{value}</v></c>'


_LAUGHS = "".join(f'<!ENTITY l{n} "{f"&l{n - 1};" * 10}">' for n in range(1, 9))
HOSTILE = {
    "unclosed formulas": workbook('<row r="1">' + '<c r="A1"><f>' * 60_000),
    "a dimension of everything": workbook(
        f'<row r="1">{cell("A1")}</row>', '<dimension ref="A1:XFD1048576"/>'
    ),
    "a cell in the last column": workbook(f'<row r="1">{cell("A1")}{cell("XFD1")}</row>'),
    "a cell in the last row": workbook(
        f'<row r="1">{cell("A1")}</row><row r="1048576">{cell("A1048576")}</row>'
    ),
    "a comment of cells": workbook(f'<!-- {cell("A1") * 100_000} --><row r="1">{cell("A1")}</row>'),
    "a billion laughs": workbook(
        '<row r="1"><c r="A1" t="str"><v>&l8;</v></c></row>',
        kind=f'<!DOCTYPE worksheet [<!ENTITY l0 "ha">{_LAUGHS}]>',
    ),
    "a file of the machine": workbook(
        '<row r="1"><c r="A1" t="str"><v>&mine;</v></c></row>',
        kind='<!DOCTYPE worksheet [<!ENTITY mine SYSTEM "file:///etc/passwd">]>',
    ),
    "much packed small": workbook(f'<row r="1">{" " * 100_000_000}</row>'),
    "commas": b"blade,count\n" + b"," * 40_000_000,
    "an open quote": b'blade,count\n"' + b"a," * 20_000_000,
    "lines and nothing else": b"blade\n" + b"\n" * 40_000_000,
    "a cut-off archive": workbook(f'<row r="1">{cell("A1")}</row>')[:400],
}
READ = {"a dimension of everything", "a comment of cells"}
"""What is harmless once it is read by what is there."""

import { strToU8, zipSync } from "fflate";

export type Cell = string | number;
const column = (i: number) => String.fromCharCode(65 + i);
const sheetXml = (rows: readonly (readonly Cell[])[]) =>
  `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows
    .map(
      (row, r) =>
        `<row r="${r + 1}">${row
          .map((cell, c) =>
            typeof cell === "number"
              ? `<c r="${column(c)}${r + 1}"><v>${cell}</v></c>`
              : `<c r="${column(c)}${r + 1}" t="inlineStr"><is><t>${cell}</t></is></c>`,
          )
          .join("")}</row>`,
    )
    .join("")}</sheetData></worksheet>`;
/** A workbook as its standard describes it (ISO/IEC 29500): a part a sheet, and one that names them. */
export function workbook(sheets: readonly (readonly (readonly Cell[])[])[]): Uint8Array {
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const link = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const pack = "http://schemas.openxmlformats.org/package/2006/relationships";
  const each = (of: (n: number) => string) => sheets.map((_, i) => of(i + 1)).join("");
  return zipSync({
    "[Content_Types].xml": strToU8(
      `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>`,
    ),
    "_rels/.rels": strToU8(
      `<Relationships xmlns="${pack}"><Relationship Id="rId1" Type="${link}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ),
    "xl/workbook.xml": strToU8(
      `<workbook xmlns="${main}" xmlns:r="${link}"><sheets>${each((n) => `<sheet name="S${n}" sheetId="${n}" r:id="rId${n}"/>`)}</sheets></workbook>`,
    ),
    "xl/_rels/workbook.xml.rels": strToU8(
      `<Relationships xmlns="${pack}">${each((n) => `<Relationship Id="rId${n}" Type="${link}/worksheet" Target="worksheets/sheet${n}.xml"/>`)}</Relationships>`,
    ),
    ...Object.fromEntries(sheets.map((rows, i) => [`xl/worksheets/sheet${i + 1}.xml`, strToU8(sheetXml(rows))])),
  });
}

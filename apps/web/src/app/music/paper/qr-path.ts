import qrcode from 'qrcode-generator';

/** A QR code of a text as one SVG path, `size` px wide, without a quiet zone. */
export function qrPath(text: string, size: number): string {
  const code = qrcode(0, 'M');
  code.addData(text);
  code.make();
  const count = code.getModuleCount();
  const module = size / count;
  const places = Array.from({ length: count }, (_, index) => index);
  const at = (index: number): string => (index * module).toFixed(2);
  return places
    .flatMap((row) =>
      places
        .filter((column) => code.isDark(row, column))
        .map((column) => `M${at(column)} ${at(row)}h${module.toFixed(2)}v${module.toFixed(2)}h-${module.toFixed(2)}z`),
    )
    .join('');
}

import QRCode from 'qrcode';

/** A QR code (ISO/IEC 18004, level M) as the path of its dark squares, and how many squares make a side. */
export function drawCode(text: string): { path: string; modules: number } {
  const { size, data } = QRCode.create(text, { errorCorrectionLevel: 'M' }).modules;
  let path = '';
  for (let row = 0; row < size; row++) {
    for (let column = 0; column < size; column++) {
      if (!data[row * size + column]) continue;
      const from = column;
      while (column + 1 < size && data[row * size + column + 1]) column++;
      path += `M${from} ${row}h${column - from + 1}v1h-${column - from + 1}z`;
    }
  }
  return { path, modules: size };
}

import QRCode from "qrcode";

/** A text as a QR code (ISO/IEC 18004), dark on light in either theme, since cameras read no other. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const { size, data } = modules;
  const QUIET = 4;
  const dark = Array.from(data, (bit, i) => (bit ? `M${(i % size) + QUIET} ${Math.floor(i / size) + QUIET}h1v1h-1z` : "")).join(
    "",
  );
  const side = size + 2 * QUIET;
  return (
    <svg role="img" aria-label={label} viewBox={`0 0 ${side} ${side}`} className="size-48 rounded-md" shapeRendering="crispEdges">
      <rect width={side} height={side} fill="#fff" />
      <path d={dark} fill="#000" />
    </svg>
  );
}

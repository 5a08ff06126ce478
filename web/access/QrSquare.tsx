import { QRCode } from 'antd';
import './qr-square.css';

/** A QR code (ISO/IEC 18004), dark on white whatever the theme: cameras read no other. */
export function QrSquare({ value, size, label }: { value: string; size: number; label: string }) {
  return (
    <div className="qr-square" role="img" aria-label={label}>
      <span aria-hidden>
        <QRCode value={value} type="svg" size={size} bordered={false} color="#172124" bgColor="#ffffff" />
      </span>
    </div>
  );
}

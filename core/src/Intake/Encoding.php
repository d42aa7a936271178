<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** How a file's bytes stand for characters. Everything is UTF-8 once it has been read. */
enum Encoding: string
{
    case Utf8 = 'UTF-8';
    case Utf16LittleEndian = 'UTF-16LE';
    case Utf16BigEndian = 'UTF-16BE';
    case Windows1252 = 'Windows-1252';

    /** A byte that no UTF-8 text holds: it marks what could not be decoded, so that its record is refused. */
    private const UNDECODABLE = "\xFF";

    /** @return string UTF-8; what is not text in this encoding stays undecodable */
    public function decode(string $bytes): string
    {
        return match ($this) {
            self::Utf8 => $bytes,
            self::Windows1252 => mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252'),
            self::Utf16LittleEndian, self::Utf16BigEndian => $this->decodeUnits($bytes),
        };
    }

    /** Bytes of a unit, at whose boundary blocks may be cut. */
    public function unit(): int
    {
        return $this === self::Utf16LittleEndian || $this === self::Utf16BigEndian ? 2 : 1;
    }

    /** @return int how many bytes at the end belong to a character that goes on in the next block */
    public function openAtEnd(string $bytes): int
    {
        if ($this->unit() === 1) {
            return 0;
        }
        $odd = strlen($bytes) % 2;
        $high = $bytes === '' || strlen($bytes) < 2 ? 0 : ord($bytes[strlen($bytes) - $odd - ($this === self::Utf16LittleEndian ? 1 : 2)]);

        return $odd + ($high >= 0xD8 && $high <= 0xDB ? 2 : 0);
    }

    private function decodeUnits(string $bytes): string
    {
        if (mb_check_encoding($bytes, $this->value)) {
            return mb_convert_encoding($bytes, 'UTF-8', $this->value);
        }
        if (strlen($bytes) <= 2) {
            return self::UNDECODABLE;
        }
        $half = intdiv(strlen($bytes), 4) * 2;
        $half -= $this->openAtEnd(substr($bytes, 0, $half));

        return $half <= 0
            ? self::UNDECODABLE.$this->decodeUnits(substr($bytes, 2))
            : $this->decodeUnits(substr($bytes, 0, $half)).$this->decodeUnits(substr($bytes, $half));
    }
}

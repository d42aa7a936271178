<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** What ends a record. CRLF accepts a lone LF too (RFC 4180 readers do); under LF a CR before it is part of the last cell. */
enum LineEnds: string
{
    case Lf = 'LF';
    case Crlf = 'CRLF';
    case Cr = 'CR';

    /** @return non-empty-string */
    public function byte(): string
    {
        return $this === self::Cr ? "\r" : "\n";
    }
}

<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** What kind of file a part is. */
enum PartKind: string
{
    case Delimited = 'delimited';
    /** Each column begins at the same place of every line. */
    case FixedWidth = 'fixed-width';
    /** A list of objects. */
    case Json = 'json';
    /** An object a line. */
    case JsonLines = 'json-lines';
    case Xml = 'xml';
    case Xlsx = 'xlsx';
    case Ods = 'ods';

    public function isWorkbook(): bool
    {
        return $this === self::Xlsx || $this === self::Ods;
    }

    public function noun(): string
    {
        return match ($this) {
            self::Delimited => 'delimited text',
            self::FixedWidth => 'text of fixed width',
            self::Json => 'JSON',
            self::JsonLines => 'JSON Lines',
            self::Xml => 'XML',
            self::Xlsx => 'a workbook (XLSX)',
            self::Ods => 'a workbook (ODS)',
        };
    }
}

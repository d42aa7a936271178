<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** Hyphens, dots and quotes of another kind. They are replaced, never removed: "Ashcombe-Lane" and "Ashcombe Lane" stay different. */
final readonly class Punctuation implements TextForm
{
    private const KINDS = [
        '-' => ["\u{2010}", "\u{2011}", "\u{2012}", "\u{2013}", "\u{2014}", "\u{2015}", "\u{2212}", "\u{FE58}", "\u{FE63}", "\u{FF0D}"],
        '...' => ["\u{2026}"],
        '.' => ["\u{2024}", "\u{00B7}", "\u{2022}", "\u{2219}", "\u{2027}", "\u{3002}", "\u{FF0E}"],
        "'" => [
            "\u{2018}",
            "\u{2019}",
            "\u{201A}",
            "\u{201B}",
            "\u{2032}",
            "\u{00B4}",
            '`',
            "\u{02BC}",
            "\u{FF07}",
            "\u{2039}",
            "\u{203A}",
        ],
        '"' => ["\u{201C}", "\u{201D}", "\u{201E}", "\u{201F}", "\u{2033}", "\u{00AB}", "\u{00BB}", "\u{FF02}"],
    ];

    /** @var array<string, string> */
    private array $plain;

    public function __construct()
    {
        $plain = [];
        foreach (self::KINDS as $mark => $others) {
            $plain += array_fill_keys($others, (string) $mark);
        }
        $this->plain = $plain;
    }

    public function id(): CauseId
    {
        return CauseId::Punctuation;
    }

    public function canonical(string $value): string
    {
        return preg_match('/[`\x80-\xFF]/', $value) === 1 ? strtr($value, $this->plain) : $value;
    }
}

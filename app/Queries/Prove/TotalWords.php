<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use NineTally\Core\Totals\Basis;
use NineTally\Core\Totals\ControlTotal;

/** What the rows of a control total, and a share of its difference, are called. */
final readonly class TotalWords
{
    public static function basis(ControlTotal $total): string
    {
        return match ($total->over) {
            Basis::Delivered => 'delivered rows',
            Basis::Prepared => 'prepared rows',
            Basis::Matched => 'rows that matched',
        };
    }

    /** An exact decimal as people write it: -1412.60 is −1,412.60, whatever its length; what is no number stays as it is. */
    public static function amount(?string $value, bool $isSigned = false): string
    {
        if ($value === null || preg_match('/^(-?)(\d+)(\.\d+)?$/D', $value, $part) !== 1) {
            return $value ?? '–';
        }
        $sign = $part[1] === '-' ? '−' : ($isSigned && preg_match('/[1-9]/', $value) === 1 ? '+' : '');

        return $sign.preg_replace('/\B(?=(\d{3})+$)/', ',', $part[2]).($part[3] ?? '');
    }

    /** @param string $name of the share, as the engine gives it */
    public static function share(string $name, string $ofPattern): string
    {
        [$kind, $rest] = [...explode(' ', $name, 2), ''];

        return match ($kind) {
            'missing' => 'missing',
            'extra' => 'extra',
            'repeated' => "repeated in the {$rest}, not compared",
            'unkeyed' => "without a key in the {$rest}",
            'left-out' => "left out by steps of the {$rest}",
            'made' => "made by steps of the {$rest}",
            'condensed' => "put together by steps of the {$rest}",
            'altered' => "altered by steps of the {$rest}",
            'pattern' => $ofPattern,
            'forgiven' => 'let pass: '.str_replace(['+', '-'], [' and ', ' '], $rest),
            'elsewhere' => 'gone to another group',
            'unvalued' => 'without a unit value on one side',
            'unreadable' => 'not readable on one side',
            default => 'not compared',
        };
    }
}

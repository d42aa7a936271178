<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Tally\SideCounts;
use NineTally\Core\Tally\Summary;

/** The figures of a tally for a person at a terminal. */
final readonly class SummaryText
{
    public static function of(Summary $summary): string
    {
        $lines = [self::balance('Source', $summary->source, 'missing'), self::balance('Target', $summary->target, 'extra'), ''];
        $lines[] = sprintf('Rows arrived: %s. Cells agreeing among matched rows: %s.', $summary->rowsArrived()->text(), $summary->cellsAgreeing()->text());
        foreach ($summary->patterns as $pattern) {
            $lines[] = sprintf('%10s  %s: %s', number_format($pattern->cells), $summary->columns[$pattern->pairPosition]['pair']->source, CauseId::sentenceFor($pattern->cause, $pattern->facts));
        }

        return implode("\n", $lines);
    }

    private static function balance(string $name, SideCounts $side, string $unmatched): string
    {
        $terms = ['agreed' => $side->agreed, 'changed' => $side->changed, $unmatched => $side->unmatched, 'repeated' => $side->repeated, 'unkeyed' => $side->unkeyed];

        return sprintf(
            '%s %s delivered = %s; %s refused',
            $name,
            number_format($side->shaped),
            implode(' + ', array_map(static fn(int $rows, string $term): string => number_format($rows).' '.$term, $terms, array_keys($terms))),
            number_format($side->refused),
        );
    }
}

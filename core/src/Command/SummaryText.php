<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\SideCounts;
use NineTally\Core\Tally\Summary;

/** The figures of a tally for a person at a terminal. */
final readonly class SummaryText
{
    public static function of(Summary $summary): string
    {
        $values = $summary->values();
        $lines = [...self::ledgers('Source', $summary->source, 'missing'), ...self::ledgers('Target', $summary->target, 'extra'), ''];
        $lines[] = sprintf(
            'Rows arrived: %s of %s, %s.',
            number_format($summary->source->agreed + $summary->source->changed),
            number_format($summary->source->prepared),
            $summary->rowsArrived()->text(),
        );
        $lines[] = sprintf(
            'Values right: %s of %s, %s. They are %s of the values that arrived.',
            number_format($values->right),
            number_format($values->values()),
            $values->agreement()->text(),
            $values->ofArrived()->text(),
        );
        $lines[] = sprintf(
            'Differing: %s. Lost: %s. Added: %s. Blank on both sides: %s.',
            ...array_map(number_format(...), [$values->differing, $values->lost(), $values->added(), $values->blankOnBoth]),
        );
        foreach ($summary->patterns as $pattern) {
            $lines[] = sprintf(
                '%10s  %s: %s',
                number_format($pattern->cells),
                $summary->columns[$pattern->pairPosition]['pair']->source,
                CauseId::sentenceFor($pattern->cause, $pattern->facts),
            );
        }

        foreach ($summary->reports->records as $report) {
            foreach (Side::cases() as $side) {
                ['problem' => $problem, 'without' => $rows, 'valuesWithout' => $values] = $report->sides[$side->value];
                $lines[] = sprintf(
                    '%s, %s: %s',
                    $report->rule->sentence(),
                    $side->value,
                    $problem ?? sprintf('%s rows without one, %s values', number_format($rows), number_format($values)),
                );
            }
        }

        return implode("\n", $lines);
    }

    /** @return list<string> reading, preparing, comparing: each an equation that held */
    private static function ledgers(string $name, SideCounts $side, string $unmatched): array
    {
        $indent = str_repeat(' ', strlen($name));

        return [
            sprintf(
                '%s %s read = %s',
                $name,
                number_format($side->read),
                self::sum(['refused' => $side->refused, 'delivered' => $side->delivered]),
            ),
            sprintf(
                '%s %s = %s',
                $indent,
                self::sum(['delivered' => $side->delivered, 'made' => $side->made]),
                self::sum(['left out' => $side->leftOut, 'condensed' => $side->condensed, 'prepared' => $side->prepared]),
            ),
            sprintf(
                '%s %s prepared = %s',
                $indent,
                number_format($side->prepared),
                self::sum([
                    'agreed' => $side->agreed,
                    'changed' => $side->changed,
                    $unmatched => $side->unmatched,
                    'repeated' => $side->repeated,
                    'unkeyed' => $side->unkeyed,
                ]),
            ),
            ...$side->repeated === 0 ? [] : [
                sprintf(
                    '%s %s repeated = %s; %s kept and compared',
                    $indent,
                    number_format($side->repeated),
                    self::sum(['set aside' => $side->repeats()['set_aside'], 'not kept' => $side->notKept]),
                    number_format($side->kept),
                ),
            ],
        ];
    }

    /** @param array<string, int> $terms */
    private static function sum(array $terms): string
    {
        return implode(
            ' + ',
            array_map(static fn(int $rows, string $term): string => number_format($rows).' '.$term, $terms, array_keys($terms)),
        );
    }
}

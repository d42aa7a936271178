<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Pattern;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\RowClass;

/** What an act of ruling was about, in words that hold on any tally: the numbers of patterns are those of the tally it was entered on. */
final readonly class ActWords
{
    public static function of(Ruling $act, Mask $mask): string
    {
        return match ($act->scope) {
            RulingScope::Pattern => self::pattern($act->tally, (int) $act->pattern_number),
            RulingScope::RowClass => 'rows: '.RowClass::from((string) $act->row_class)->sentence(),
            RulingScope::Row => 'one row',
            RulingScope::Cell => 'one cell',
            RulingScope::Selection => 'chosen '.(($act->filter['of'] ?? '') === 'cells' ? 'cells' : 'rows'),
            RulingScope::Filter => self::filter($act->tally, $mask->terms($act->filter ?? [])),
            RulingScope::Undo => "undid ruling {$act->undoes_id}",
        };
    }

    /** @param array<array-key, mixed> $terms of a filter, as they may be shown */
    private static function filter(Tally $tally, array $terms): string
    {
        $keyColumns = $tally->summary['madeOf']['keyColumns'];
        $said = [];
        foreach ($terms as $name => $value) {
            $value = is_scalar($value) ? (string) $value : '';
            $said[] = match ($name) {
                'class' => 'rows: '.RowClass::from($value)->sentence(),
                'pattern' => self::pattern($tally, (int) $value),
                'pair' => 'column '.($tally->loadMissing('patterns')->patterns->firstWhere('pair_id', $value)->source_column ?? $value),
                'cellClass' => "{$value} cells",
                'cause' => "cause {$value}",
                'source', 'target' => "{$name} is \"{$value}\"",
                'key' => ($keyColumns[is_numeric($place = $terms['keyColumn'] ?? null) ? (int) $place - 1 : 0] ?? 'key')." is \"{$value}\"",
                'ruling' => $value === 'open' || $value === 'reopened' ? 'open' : "ruled {$value}",
                'act' => "by ruling {$value}",
                'text' => "with the text \"{$value}\"",
                'bridged' => 'bridged',
                'reason' => str_replace('-', ' ', $value),
                'side' => "of the {$value}",
                'part' => "part {$value}",
                default => null,
            };
        }
        $subject = array_intersect(['class', 'pattern'], array_keys($terms)) !== []
            ? []
            : [($terms['of'] ?? '') === 'cells' ? 'cells that differ' : 'rows that do not agree'];

        return implode(', ', [...$subject, ...array_filter($said)]);
    }

    private static function pattern(Tally $tally, int $number): string
    {
        $pattern = $tally->loadMissing('patterns')->patterns->firstWhere('number', $number);

        return $pattern instanceof Pattern
            ? "{$pattern->source_column}: ".CauseId::sentenceFor($pattern->cause, $pattern->facts)
            : 'a pattern';
    }
}

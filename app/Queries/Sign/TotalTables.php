<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\TotalGroup;
use App\Queries\Review\Mask;
use App\Queries\TakeAway\ListTable;

/** Control totals and their groups as tables of an evidence pack. */
final readonly class TotalTables
{
    public static function totals(Tally $tally, Mask $mask): ListTable
    {
        return ListTable::of(
            [
                'number' => 'integer',
                'total' => 'string',
                'source' => 'string',
                'target' => 'string',
                'difference' => 'string',
                'differs' => 'boolean',
            ],
            array_values(
                $tally->totals
                    ->map(
                        static fn(TallyTotal $total): array => $mask->hidesTotal($total->total())
                            ? [
                                $total->number,
                                $total->total()->sentence(),
                                'masked',
                                'masked',
                                'masked',
                                ListTable::boolean($total->differs),
                            ]
                            : [
                                $total->number,
                                $total->total()->sentence(),
                                (string) $total->figures['source'],
                                (string) $total->figures['target'],
                                (string) $total->figures['difference'],
                                ListTable::boolean($total->differs),
                            ],
                    )
                    ->all(),
            ),
            ['number'],
        );
    }

    public static function groups(Tally $tally, Mask $mask): ListTable
    {
        $lines = [];
        foreach ($tally->totals as $total) {
            $groups = $mask->hidesTotal($total->total())
                ? []
                : TotalGroup::query()->where(['tally_id' => $tally->id, 'number' => $total->number])->orderBy('place')->get();
            foreach ($groups as $group) {
                $figures = $group->figures;
                $lines[] = [
                    $total->number, (int) $group->place, implode(' | ', $figures['labels']), (string) $figures['onlyOn'],
                    (string) $figures['source'], (string) $figures['target'], (string) $figures['difference'],
                ];
            }
        }

        return ListTable::of(
            [
                'total' => 'integer',
                'place' => 'integer',
                'group' => 'string',
                'only on' => 'string',
                'source' => 'string',
                'target' => 'string',
                'difference' => 'string',
            ],
            $lines,
            ['total', 'place'],
        );
    }
}

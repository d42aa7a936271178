<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Tally;
use App\Queries\Review\TallyColumns;
use NineTally\Core\Figures\Percentage;
use NineTally\Core\Row\Side;

/**
 * What a tally looked at and what it did not: rows of both sides, columns with what became of each, and the share of cells that any
 * comparison touched. A column of the key is touched, for rows meet by it.
 */
final readonly class Population
{
    private const NO_COLUMNS = ['key' => 0, 'compared' => 0, 'left-out' => 0, 'undecided' => 0];

    /**
     * @return array<string, array{delivered: int, prepared: int, compared: int, columns: list<array{name: string, role: string,
     *     partner: string|null}>, counts: array<string, int>, cells: int, touched: int, share: string}> by side
     */
    public function of(Tally $tally): array
    {
        $layout = TallyColumns::ofTally($tally);
        $sides = [];
        foreach (Side::cases() as $side) {
            $columns = $this->columns($layout, $side);
            $rows = $tally->summary['rows'][$side->value];
            $compared = $rows['agreed'] + $rows['changed'];
            $touched = $compared * count(array_filter($columns, static fn(array $column): bool => $column['partner'] !== null));
            $cells = $rows['prepared'] * count($columns);
            $sides[$side->value] = [
                'delivered' => $rows['delivered'],
                'prepared' => $rows['prepared'],
                'compared' => $compared,
                'columns' => $columns,
                'counts' => array_count_values(array_column($columns, 'role')) + self::NO_COLUMNS,
                'cells' => $cells,
                'touched' => $touched,
                'share' => (new Percentage($touched, $cells))->text(),
            ];
        }

        return $sides;
    }

    /** @return list<array{name: string, role: string, partner: string|null}> in the order of the side */
    private function columns(TallyColumns $layout, Side $side): array
    {
        $plan = $layout->plan;
        $other = $side->other();
        $key = array_combine($plan->keyNames($side), $plan->keyNames($other));
        $paired = array_combine($plan->pairedNames($side), $plan->pairedNames($other));

        return array_map(
            static fn(string $name): array => [
                'name' => $name,
                'role' => match (true) {
                    isset($key[$name]) => 'key',
                    isset($paired[$name]) => 'compared',
                    in_array($name, $plan->leftOut[$side->value], true) => 'left-out',
                    default => 'undecided',
                },
                'partner' => $key[$name] ?? $paired[$name] ?? null,
            ],
            $side === Side::Source ? $layout->sourceColumns : $layout->targetColumns,
        );
    }
}

<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\Tally;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/**
 * The rows of a side whose keys stand next to a key that it does not have: who looks for a row that is missing there sees what stands in
 * its place.
 * Keys are ordered cell by cell, numbers in them as numbers.
 */
final readonly class KeysBeside implements Question
{
    private const EACH_WAY = 3;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    /** @param list<string> $key as the other side has it */
    private function __construct(private int $tally, private Side $side, private array $key) {}

    /** @param list<string> $key */
    public static function of(Tally $tally, Side $side, array $key): self
    {
        return new self($tally->id, $side, $key);
    }

    public function kind(): string
    {
        return 'keys-beside';
    }

    public function about(): array
    {
        return [$this->tally, $this->side->value, $this->key];
    }

    /** @return array{columns: list<string>, rows: list<array{isBefore: bool, key: string, part: int, line: int, cells: list<string>}>} */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $tally = Tally::query()->with('planVersion')->findOrFail($this->tally);
        $plan = $tally->planVersion->plan();
        $reader = BothSides::ofTally($tally)->reader($material, $this->side);
        $forms = (new CauseCatalogue)->forms;
        [$form, $wanted] = [$plan->keyForm($this->side, $forms), $plan->keyForm($this->side->other(), $forms)->canonical($this->key)];
        $positions = $reader->columns()->positionsOf($plan->keyNames($this->side));
        $before = $after = [];
        $rows = $bytes = 0;
        foreach ($reader->records(static function (int $read) use (&$bytes): void {
            $bytes = $read;
        }) as $row) {
            if (++$rows % self::ROWS_BETWEEN_REPORTS === 0) {
                $onProgress($bytes, $reader->bytes());
            }
            if (! $row instanceof Row) {
                continue;
            }
            $cells = array_map(static fn(int $position): string => $row->cells[$position], $positions);
            $canonical = $form->canonical($cells);
            $order = strnatcasecmp($canonical, $wanted);
            if ($order < 0) {
                $before = $this->nearest($before, $canonical, [$row, $cells], isBefore: true);
            } else {
                $after = $this->nearest($after, $canonical, [$row, $cells], isBefore: false);
            }
        }
        $told = static fn(bool $isBefore): \Closure => static function (array $entry) use ($isBefore, $reader): array {
            /** @var array{string, array{Row, list<string>}} $entry */
            [$row, $cells] = $entry[1];
            $place = $reader->place($row->line);

            return [
                'isBefore' => $isBefore,
                'key' => KeyTuple::of($cells)->asCsv(),
                'part' => $place->part,
                'line' => $place->line,
                'cells' => $row->cells,
            ];
        };

        return [
            'columns' => $reader->columns()->names,
            'rows' => [...array_map($told(true), array_reverse($before)), ...array_map($told(false), $after)],
        ];
    }

    /**
     * @param  list<array{string, array{Row, list<string>}}>  $nearest  the nearest first
     * @param  array{Row, list<string>}  $found
     * @return list<array{string, array{Row, list<string>}}>
     */
    private function nearest(array $nearest, string $canonical, array $found, bool $isBefore): array
    {
        $last = $nearest[self::EACH_WAY - 1][0] ?? null;
        if ($last !== null && (strnatcasecmp($canonical, $last) <=> 0) !== ($isBefore ? 1 : -1)) {
            return $nearest;
        }
        $nearest[] = [$canonical, $found];
        usort($nearest, static fn(array $one, array $other): int => ($isBefore ? -1 : 1) * strnatcasecmp($one[0], $other[0]));

        return array_slice($nearest, 0, self::EACH_WAY);
    }
}

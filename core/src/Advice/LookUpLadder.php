<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Value\Reading;

/**
 * How many rows find a record of a reference, and which causes of form, forgiven by the look-up, would have more of them find one: from
 * weak to strong, each with the rows that would then find several.
 *
 * @phpstan-type Rung array{causes: non-empty-list<string>, brings: int, several: int, left: int}
 */
final class LookUpLadder
{
    /** @var array<string, array{list<string>, int}> different keys of rows that have one, and how many rows have it */
    private array $keys = [];

    /** @var list<list<string>> keys of records that a row could find in some form */
    private array $candidates = [];

    /**
     * @param  list<list<string>>  $rows  key cells of the rows
     * @param  list<list<string>>  $records  key cells of the records, in the same order of columns
     * @param  list<Reading>  $ofRows  how the key's columns are read on either side
     * @param  list<Reading>  $ofRecords
     */
    public function __construct(array $rows, array $records, private readonly array $ofRows, private readonly array $ofRecords)
    {
        $wanted = [];
        foreach ($rows as $key) {
            if (implode('', $key) !== '') {
                $name = implode("\0", $key);
                $this->keys[$name] = [$key, ($this->keys[$name][1] ?? 0) + 1];
                $wanted[self::bare($key)] = true;
            }
        }
        foreach ($records as $key) {
            if (isset($wanted[self::bare($key)])) {
                $this->candidates[] = $key;
            }
        }
    }

    /** @param list<string> $key */
    private static function bare(array $key): string
    {
        return implode("\0", array_map(LookUpAdvice::bare(...), $key));
    }

    /**
     * @return array{found: int, several: int, rungs: list<Rung>} rows that find a record, those of them that find several, and what brings
     *     more
     */
    public function steps(): array
    {
        [$found, $several] = $this->count([]);
        $alone = array_values(array_filter(KeyLadder::OF_ANY_KIND, fn(string $cause): bool => $this->count([$cause])[0] > $found));
        $fewest = $this->fewest();
        $wanted = array_map(static fn(string $cause): array => [$cause], $alone);
        if (count($fewest) > 1) {
            $wanted[] = $fewest;
        }
        $rows = array_sum(array_column($this->keys, 1));

        return [
            'found' => $found,
            'several' => $several,
            'rungs' => array_map(function (array $causes) use ($found, $several, $rows): array {
                [$foundThen, $severalThen] = $this->count($causes);

                return [
                    'causes' => $causes,
                    'brings' => $foundThen - $found,
                    'several' => $severalThen - $several,
                    'left' => $rows - $foundThen,
                ];
            }, $wanted),
        ];
    }

    /** @return list<string> the fewest causes that bring in all rows that all of them would, the weaker before the stronger */
    private function fewest(): array
    {
        $causes = KeyLadder::OF_ANY_KIND;
        [$most] = $this->count($causes);
        foreach (array_reverse(KeyLadder::OF_ANY_KIND) as $cause) {
            $without = array_values(array_diff($causes, [$cause]));
            $causes = $this->count($without)[0] === $most ? $without : $causes;
        }

        return $causes;
    }

    /**
     * @param  list<string>  $causes  that are forgiven in every column
     * @return array{int, int} rows that find a record, and those of them that find several
     */
    private function count(array $causes): array
    {
        $forgives = array_fill(0, count($this->ofRows), $causes);
        $combination = (new CauseCatalogue)->forms;
        [$form, $ofRecord] = [new KeyForm($this->ofRows, $forgives, $combination), new KeyForm($this->ofRecords, $forgives, $combination)];
        $times = array_count_values(array_map($ofRecord->canonical(...), $this->candidates));
        $found = $several = 0;
        foreach ($this->keys as [$key, $rows]) {
            $records = $times[$form->canonical($key)] ?? 0;
            $found += $records > 0 ? $rows : 0;
            $several += $records > 1 ? $rows : 0;
        }

        return [$found, $several];
    }
}

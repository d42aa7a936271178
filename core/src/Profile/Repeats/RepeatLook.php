<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\RowSets\GroupParts;
use NineTally\Core\Totals\ExactSum;

/**
 * Rows of both sides that share the values of some columns, looked at and left as they are: how many there are, in which columns they
 * differ among themselves, and where on a side the copies come from. Rows are put aside by the hash of what they share, so memory is
 * bounded by the largest group and a part of all rows.
 */
final class RepeatLook
{
    /** @var array{source: GroupParts, target: GroupParts} */
    private readonly array $parts;

    /** @var array{source: int, target: int} */
    private array $rows = ['source' => 0, 'target' => 0];

    /** @var array{source: ExactSum, target: ExactSum} of the column that is at stake, over all rows */
    private readonly array $totals;

    /**
     * @param  array{source: LookedSide, target: LookedSide}  $sides
     * @param  string  $folder  for rows that are put aside
     */
    public function __construct(private readonly array $sides, string $folder)
    {
        $this->parts = ['source' => new GroupParts($folder), 'target' => new GroupParts($folder)];
        $this->totals = ['source' => new ExactSum, 'target' => new ExactSum];
    }

    /**
     * @param  'source'|'target'  $side
     * @param  int  $place  packed, of the record that the row begins with
     * @param  list<string>  $cells
     */
    public function see(string $side, int $place, array $cells): void
    {
        $this->rows[$side]++;
        $this->sides[$side]->stake?->add($this->totals[$side], $cells);
        $shared = $this->sides[$side]->shared($cells);
        // Rows with nothing in these columns share nothing.
        if (trim($shared, Batch::CELL_END) !== '') {
            $this->parts[$side]->put($shared, LookedGroup::packed($place, implode(Batch::CELL_END, $cells)));
        }
    }

    public function found(): RepeatsFound
    {
        $found = new RepeatsFound($this->rows, $this->sides['source']->stake === null ? null : $this->totals);
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            $groups = ['source' => $this->groups('source', $part), 'target' => $this->groups('target', $part)];
            foreach (array_keys($groups['source'] + $groups['target']) as $shared) {
                $here = $groups['source'][$shared] ?? [];
                $there = $groups['target'][$shared] ?? [];
                if (count($here) > 1 || count($there) > 1) {
                    $found->add(new RepeatGroup(
                        LookedGroup::of($this->sides['source'], $here),
                        LookedGroup::of($this->sides['target'], $there),
                    ));
                } else {
                    $found->addSingle($here !== [], $there !== []);
                }
            }
        }
        foreach ($this->parts as $parts) {
            $parts->remove();
        }

        return $found;
    }

    /**
     * @param  'source'|'target'  $side
     * @return array<array-key, list<string>> packed rows by what they share, in the order in which they stand
     */
    private function groups(string $side, int $part): array
    {
        $groups = [];
        foreach ($this->parts[$side]->part($part) as [$shared, $row]) {
            $groups[$shared][] = $row;
        }

        return $groups;
    }
}

<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

/** Groups of both sides held against each other: those that differ, and how many rows agree where they stand. */
final readonly class DifferingGroups
{
    /**
     * @param  list<int>  $numbers  of those that differ
     * @param  int  $groups  that hold rows at all
     * @param  int  $agreed  rows of each side in groups that agree
     * @param  array{source: int, target: int}  $rows  of each side, all of them
     */
    private function __construct(public array $numbers, public int $groups, public int $agreed, public array $rows) {}

    /** @param array<int, true> $repeated groups in which a key stands more than once */
    public static function of(GroupStream $source, GroupStream $target, array $repeated): self
    {
        $sides = [$source->getIterator(), $target->getIterator()];
        $numbers = [];
        $groups = $agreed = 0;
        $rows = ['source' => 0, 'target' => 0];
        while ($sides[0]->valid() || $sides[1]->valid()) {
            $number = min(...array_map(static fn(\Generator $side): int => $side->valid() ? $side->key() : PHP_INT_MAX, $sides));
            $found = [];
            foreach (['source', 'target'] as $position => $name) {
                if ($sides[$position]->valid() && $sides[$position]->key() === $number) {
                    $found[] = $group = $sides[$position]->current();
                    $rows[$name] += $group['rows'];
                    $sides[$position]->next();
                }
            }
            $groups++;
            if (count($found) === 2 && $found[0] === $found[1] && ! $found[0]['odd'] && ! isset($repeated[$number])) {
                $agreed += $found[0]['rows'];
            } else {
                $numbers[] = $number;
            }
        }

        return new self($numbers, $groups, $agreed, $rows);
    }
}

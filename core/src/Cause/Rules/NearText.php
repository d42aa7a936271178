<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Kind;

/**
 * Both sides have four characters or more, and at most two edits, and a quarter of the length, lie between them. An edit adds, leaves out
 * or replaces a character, or swaps two neighbours (optimal string alignment, after Damerau 1964).
 */
final readonly class NearText implements CauseRule
{
    private const SHORTEST = 4;

    /** Beyond this nobody calls two texts near; it bounds the work. */
    private const LONGEST = 1_000;

    public function id(): CauseId
    {
        return CauseId::NearText;
    }

    /** The kind of edit and not the letters, so that a column has as many patterns as there are explanations. */
    public function facts(CellPair $pair): ?array
    {
        $edits = $this->edits($pair);

        return $edits === null ? null : ['edit' => implode('+', array_keys(array_filter([
            'added' => array_filter($edits, static fn(array $edit): bool => $edit[1] === 0) !== [],
            'lost' => array_filter($edits, static fn(array $edit): bool => $edit[3] === 0) !== [],
            'exchanged' => array_filter($edits, static fn(array $edit): bool => $edit[1] === 1 && $edit[3] === 1) !== [],
            'swapped' => array_filter($edits, static fn(array $edit): bool => $edit[1] === 2) !== [],
        ])))];
    }

    /**
     * Which letters became which, as they were delivered.
     *
     * @param  CellPair  $bare  the same cells with their differences of form taken away
     * @return list<array{string, string}> what was, and what became of it
     */
    public function letters(CellPair $pair, CellPair $bare): array
    {
        $isAsItStands = $this->edits($pair) !== null;
        $edits = $this->edits($isAsItStands ? $pair : $bare) ?? [];
        [$source, $target] = [mb_str_split($pair->source), mb_str_split($pair->target)];
        // Most forms leave each letter in its place, so that it can be shown as it was; else it is shown as it was compared.
        $isInPlace = $isAsItStands || count($source) === mb_strlen($bare->source) && count($target) === mb_strlen($bare->target);
        [$source, $target] = $isInPlace ? [$source, $target] : [mb_str_split($bare->source), mb_str_split($bare->target)];

        return array_map(
            static fn(array $edit): array => [
                implode('', array_slice($source, $edit[0], $edit[1])),
                implode('', array_slice($target, $edit[2], $edit[3])),
            ],
            $edits,
        );
    }

    /** @return list<array{int, int, int, int}>|null */
    private function edits(CellPair $pair): ?array
    {
        if (
            $pair->kind() !== Kind::Text ||
            strlen($pair->source) > self::LONGEST ||
            strlen($pair->target) > self::LONGEST ||
            abs(strlen($pair->source) - strlen($pair->target)) > 8
        ) {
            return null;
        }
        $source = mb_str_split($pair->source);
        $target = mb_str_split($pair->target);
        if (min(count($source), count($target)) < self::SHORTEST) {
            return null;
        }
        $edits = EditScript::between($source, $target, min(2, intdiv(max(count($source), count($target)), 4)));

        return $edits === [] ? null : $edits;
    }
}

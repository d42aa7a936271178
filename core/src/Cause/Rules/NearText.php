<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Kind;

/** Both sides have four characters or more, and at most two edits, and a quarter of the length, lie between them. An edit adds, leaves out or replaces a character, or swaps two neighbours (optimal string alignment, after Damerau 1964). */
final readonly class NearText implements CauseRule
{
    private const SHORTEST = 4;

    /** Beyond this nobody calls two texts near; it bounds the work. */
    private const LONGEST = 1_000;

    public function id(): CauseId
    {
        return CauseId::NearText;
    }

    public function facts(CellPair $pair): ?array
    {
        if ($pair->kind() !== Kind::Text || strlen($pair->source) > self::LONGEST || strlen($pair->target) > self::LONGEST || abs(strlen($pair->source) - strlen($pair->target)) > 8) {
            return null;
        }
        $source = mb_str_split($pair->source);
        $target = mb_str_split($pair->target);
        if (min(count($source), count($target)) < self::SHORTEST) {
            return null;
        }
        // Two numbers or two days that lie near each other are still different ones.
        $edits = EditScript::between($source, $target, min(2, intdiv(max(count($source), count($target)), 4)));

        return $edits === null || $pair->numbers() !== null || $pair->moments() !== null ? null : ['edits' => count($edits), 'from' => implode('|', array_column($edits, 0)), 'to' => implode('|', array_column($edits, 1))];
    }
}

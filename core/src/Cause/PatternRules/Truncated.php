<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\PatternRules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\PatternRule;
use NineTally\Core\Comparison\CellPair;

/**
 * The target is the start of the source, cut at one length for the whole column: in characters, or in bytes. Spaces at the end
 * of a cut value are often lost afterwards, so a value may have been cut a little later than it is long.
 */
final readonly class Truncated implements PatternRule
{
    private const MOST_SPACES = 8;

    public function id(): CauseId
    {
        return CauseId::Truncated;
    }

    public function evidence(CellPair $pair): array
    {
        $target = rtrim($pair->target, ' ');
        if ($target === '' || strlen($target) >= strlen($pair->source) || ! str_starts_with($pair->source, $target)) {
            return [];
        }
        $characters = mb_strlen($target);
        $bytes = strlen($target);
        // Where the source goes on with spaces, the cut may lie behind any of them.
        $spaces = min(self::MOST_SPACES, strspn($pair->source, ' ', $bytes), strlen($pair->source) - $bytes - 1);
        $evidence = [];
        for ($more = 0; $more <= $spaces; $more++) {
            $evidence[] = 'characters:'.($characters + $more);
            $evidence[] = 'bytes:'.($bytes + $more);
        }

        return $evidence;
    }

    public function decide(array $counts, int $cells): array
    {
        $best = null;
        foreach ($counts as $evidence => $count) {
            if ($count >= self::LEAST && ($best === null || $this->isBetter($evidence, $count, $best, $counts[$best]))) {
                $best = $evidence;
            }
        }
        if ($best === null) {
            return [];
        }
        [$unit, $length] = explode(':', $best);

        return [$best => [$unit => (int) $length]];
    }

    /** The more frequent length; among equals characters before bytes, then the shorter. */
    private function isBetter(string $evidence, int $count, string $best, int $bestCount): bool
    {
        [$unit, $length] = explode(':', $evidence);
        [$bestUnit, $bestLength] = explode(':', $best);

        return [-$count, $unit === 'bytes' ? 1 : 0, (int) $length] < [-$bestCount, $bestUnit === 'bytes' ? 1 : 0, (int) $bestLength];
    }
}

<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\Postings\Postings;
use NineTally\Core\Matching\RowComparison;
use NineTally\Core\Plan\Plan;

/**
 * What rules let pass, pattern by pattern, with the rows in which it stands: of the column pairs in the order of the plan, then of the key.
 */
final readonly class ForgivenPostings
{
    /**
     * @param  list<array{source: string, target: string, isOfKey: bool, cause: string, facts: array<string, string|int>, cells: int,
     *     offset: int, bytes: int, pattern: string}>  $patterns
     */
    private function __construct(public Postings $postings, public array $patterns) {}

    public static function of(Plan $plan, Postings $postings): self
    {
        $patterns = [];
        foreach ($postings->lists as $list) {
            ['isOfKey' => $isOfKey, 'position' => $position, 'cause' => $cause, 'facts' => $facts] = RowComparison::posted(
                $list['pattern'],
            );
            $columns = $isOfKey ? $plan->key[$position] : $plan->columnPairs[$position];
            $patterns[] = [
                'source' => $columns->source,
                'target' => $columns->target,
                'isOfKey' => $isOfKey,
                'cause' => $cause,
                'facts' => $facts,
                'cells' => $list['cells'],
                'offset' => $list['offset'],
                'bytes' => $list['bytes'],
                'pattern' => $list['pattern'],
            ];
        }

        return new self($postings, $patterns);
    }

    /** @return list<array<string, mixed>> as the index of the file says it */
    public function toArray(): array
    {
        return array_map(
            static fn(array $pattern): array => ['facts' => (object) $pattern['facts']] + array_diff_key($pattern, ['pattern' => true]),
            $this->patterns,
        );
    }
}

<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\User;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;

/**
 * Puts the bridges of a table into the draft: those that it has already stay as the table says, new ones come, and, where the table is the
 * whole list, the others go.
 *
 * @phpstan-type Counts array{added: int, changed: int, removed: int, total: int}
 */
final readonly class PutBridgesOfTable
{
    public function __construct(private SaveDraft $saveDraft) {}

    /**
     * @param  bool  $isWhole  whether bridges that are not in the table are taken back
     * @param  bool  $isTried  whether it is only counted
     * @param  int  $seen  the number of the draft that the person saw
     * @return array{draft: int, counts: Counts}
     *
     * @throws \Illuminate\Validation\ValidationException when a line of the table is no bridge
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function __invoke(Dataset $dataset, string $table, bool $isWhole, bool $isTried, User $person, int $seen): array
    {
        $draft = $dataset->draft()->firstOrFail();
        /** @var list<array{source: string, target: string}> $key */
        $key = $draft->document['key'] ?? [];
        $known = self::bySource(Bridges::fromDocument($draft->document)->confirmed);
        $told = self::bySource(BridgesOfTable::read($table, $key));
        // A key of the target that the table joins to another one of the source is free for it.
        $targets = array_fill_keys(array_map(static fn(Bridge $bridge): string => implode("\0", $bridge->target), $told), true);
        $kept = $isWhole
            ? []
            : array_filter(
                array_diff_key($known, $told),
                static fn(Bridge $bridge): bool => ! isset($targets[implode("\0", $bridge->target)]),
            );
        $stays = array_intersect_key($known, $told);
        $counts = [
            'added' => count(array_diff_key($told, $known)),
            'changed' => count(array_filter(
                $stays,
                static fn(Bridge $bridge, int|string $source): bool => $bridge->toArray() !== $told[$source]->toArray(),
                ARRAY_FILTER_USE_BOTH,
            )),
            'removed' => count($known) - count($stays) - count($kept),
            'total' => count($kept) + count($told),
        ];
        if ($isTried) {
            return ['draft' => $draft->number, 'counts' => $counts];
        }
        $bridges = array_map(
            static fn(Bridge $bridge): array => $bridge->toArray(),
            // In the order that they stand in, new ones behind.
            array_values(array_replace(array_intersect_key($known, $kept + $told), $told)),
        );

        return [
            'draft' => ($this->saveDraft)(
                $dataset,
                ['bridges' => $bridges] + array_diff_key($draft->document, ['bridges' => true]),
                $person,
                $seen,
            )->number,
            'counts' => $counts,
        ];
    }

    /**
     * @param  list<Bridge>  $bridges
     * @return array<array-key, Bridge>
     */
    private static function bySource(array $bridges): array
    {
        return array_combine(array_map(static fn(Bridge $bridge): string => 'k'.implode("\0", $bridge->source), $bridges), $bridges);
    }
}

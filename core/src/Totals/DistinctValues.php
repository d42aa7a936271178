<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Row\KeyTuple;

/**
 * Distinct values of both sides, counted by merging the sorted runs of each and holding the two against each other: exact, and with a block
 * of each run in memory.
 *
 * @phpstan-type Run array{path: string, offset: int, bytes: int}
 * @phpstan-type Only array{count: int, values: list<string>}
 * @phpstan-type OfGroup array{source: int, target: int, only: array{source: Only, target: Only}}
 */
final readonly class DistinctValues
{
    /** Of the values that one side has alone, so many are told for each group. */
    public const TOLD = 20;

    private const BLOCK_BYTES = 65_536;

    private const NONE = ['source' => 0, 'target' => 0, 'only' => [
        'source' => ['count' => 0, 'values' => []],
        'target' => ['count' => 0, 'values' => []],
    ]];

    /**
     * @param  list<Run>  $source  in the order of the side
     * @param  list<Run>  $target
     * @return array<string, OfGroup> by group as groups meet
     */
    public static function of(array $source, array $target): array
    {
        $groups = [];
        [$ofSource, $ofTarget] = [self::merged($source), self::merged($target)];
        while ($ofSource->valid() || $ofTarget->valid()) {
            $order = match (true) {
                ! $ofTarget->valid() => -1,
                ! $ofSource->valid() => 1,
                default => strcmp($ofSource->key(), $ofTarget->key()),
            };
            $key = $order <= 0 ? $ofSource->key() : $ofTarget->key();
            $group = substr($key, 0, (int) strrpos($key, KeyTuple::SEPARATOR));
            $counts = $groups[$group] ?? self::NONE;
            foreach (['source' => [$ofSource, $order <= 0], 'target' => [$ofTarget, $order >= 0]] as $side => [$values, $hasIt]) {
                if (! $hasIt) {
                    continue;
                }
                $counts[$side]++;
                if ($order !== 0) {
                    $counts['only'][$side]['count']++;
                    if ($counts['only'][$side]['count'] <= self::TOLD) {
                        $counts['only'][$side]['values'][] = $values->current();
                    }
                }
                $values->next();
            }
            $groups[$group] = $counts;
        }

        return $groups;
    }

    /**
     * @param  list<Run>  $runs
     * @return \Generator<string, string> value as it first stood there, by group and value as they meet, each once, in their order
     */
    private static function merged(array $runs): \Generator
    {
        $streams = array_map(self::read(...), $runs);
        /** @var \SplMinHeap<array{string, int}> $heap */
        $heap = new \SplMinHeap;
        foreach ($streams as $number => $stream) {
            $heap->insert([$stream->key(), $number]);
        }
        $before = null;
        while (! $heap->isEmpty()) {
            // A key holds a byte that no number has, so keys are compared as bytes; of equal ones the earlier run comes first.
            [$key, $number] = $heap->extract();
            $stream = $streams[$number];
            if ($key !== $before) {
                yield $key => $stream->current();
                $before = $key;
            }
            $stream->next();
            if ($stream->valid()) {
                $heap->insert([$stream->key(), $number]);
            }
        }
    }

    /**
     * @param  Run  $run
     * @return \Generator<string, string>
     */
    private static function read(array $run): \Generator
    {
        $file = @fopen($run['path'], 'rb');
        if ($file === false || fseek($file, $run['offset']) !== 0) {
            throw WorkspaceFailure::reading(basename($run['path']));
        }
        [$left, $rest] = [$run['bytes'], ''];
        while ($left > 0) {
            $block = (string) fread($file, min(self::BLOCK_BYTES, $left));
            if ($block === '') {
                throw WorkspaceFailure::reading(basename($run['path']));
            }
            $left -= strlen($block);
            $entries = explode(Batch::ROW_END, $rest.$block);
            $rest = array_pop($entries);
            foreach ($entries as $entry) {
                $end = (int) strrpos($entry, Batch::CELL_END);
                yield substr($entry, 0, $end) => substr($entry, $end + 1);
            }
        }
        fclose($file);
    }
}

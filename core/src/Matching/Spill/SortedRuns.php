<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\Intake\Batch;

/**
 * Sorted runs that {@see SortedRunWriter} wrote, merged while they are read: with a block of each in memory.
 *
 * @phpstan-type Run array{path: string, offset: int, bytes: int}
 */
final readonly class SortedRuns
{
    private const BLOCK_BYTES = 65_536;

    /**
     * @param  list<Run>  $runs
     * @return \Generator<string, string> values by key, in the order of the keys; of equal keys those of the earlier run come first
     */
    public static function merged(array $runs): \Generator
    {
        $streams = array_map(self::read(...), $runs);
        /** @var \SplMinHeap<array{string, int}> $heap */
        $heap = new \SplMinHeap;
        foreach ($streams as $number => $stream) {
            if ($stream->valid()) {
                $heap->insert([$stream->key()."\0", $number]);
            }
        }
        while (! $heap->isEmpty()) {
            [$key, $number] = $heap->extract();
            $stream = $streams[$number];
            yield substr($key, 0, -1) => $stream->current();
            $stream->next();
            if ($stream->valid()) {
                // With a byte behind it that no number has, so that "1e1" and "10" are not one.
                $heap->insert([$stream->key()."\0", $number]);
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

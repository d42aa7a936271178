<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\Intake\Batch;

/** Reads back what SpillWriter wrote for one side: the files of all its ranges, in their order. */
final class SpillReader
{
    /** @var list<array{path: string, baseLine: int, index: array<int, string>}> */
    private array $files = [];

    /** @param list<array{path: string, baseLine: int}> $files with the lines before each range */
    public function __construct(array $files)
    {
        foreach ($files as $file) {
            $index = @file_get_contents($file['path'].'.index');
            $chunks = $index === false ? throw WorkspaceFailure::reading($file['path']) : unserialize($index, ['allowed_classes' => false]);
            /** @var array<int, string> $chunks */
            $this->files[] = [...$file, 'index' => $chunks];
        }
    }

    /** Bytes that a partition takes in memory, about. */
    public function bytes(int $partition): int
    {
        $bytes = 0;
        foreach ($this->files as $file) {
            foreach ($this->places($file['index'][$partition] ?? '') as [, $rows, $keys, $bodies, $rests]) {
                $bytes += $keys + $bodies + $rests + 96 * $rows;
            }
        }

        return $bytes;
    }

    /** All rows of a partition at once. */
    public function rows(int $partition): SpilledRows
    {
        $keys = $bodies = $rests = '';
        $lines = new PackedLines;
        foreach ($this->chunks($partition) as [$chunkKeys, $chunkBodies, $chunkRests, $chunkLines, $linesBefore]) {
            $keys .= $chunkKeys;
            $bodies .= $chunkBodies;
            $rests .= $chunkRests;
            $lines->append($chunkLines, $linesBefore);
        }

        return new SpilledRows($this->list($keys), $this->list($bodies), $this->list($rests), $lines);
    }

    /**
     * The rows of a partition chunk by chunk, where they are too many to be held.
     *
     * @return \Generator<int, SpilledRows>
     */
    public function stream(int $partition): \Generator
    {
        foreach ($this->chunks($partition) as [$keys, $bodies, $rests, $packed, $linesBefore]) {
            $lines = new PackedLines;
            $lines->append($packed, $linesBefore);
            yield new SpilledRows($this->list($keys), $this->list($bodies), $this->list($rests), $lines);
        }
    }

    /**
     * @return \Generator<int, array{string, string, string, string, int}> keys, bodies, rests, packed lines, and how many lines come before
     */
    private function chunks(int $partition): \Generator
    {
        foreach ($this->files as ['path' => $path, 'baseLine' => $baseLine, 'index' => $index]) {
            if (! isset($index[$partition])) {
                continue;
            }
            $file = WorkspaceReader::forReading($path);
            foreach ($this->places($index[$partition]) as [$offset, $rows, $keys, $bodies, $rests]) {
                $chunk = $file->readAt($offset, $keys + $bodies + $rests + 8 * $rows);
                yield [
                    substr($chunk, 0, $keys),
                    substr($chunk, $keys, $bodies),
                    $rests === 0 ? '' : substr($chunk, $keys + $bodies, $rests),
                    substr($chunk, -8 * $rows),
                    $baseLine,
                ];
            }
        }
    }

    /** @return \Generator<int, array{int, int, int, int, int}> offset, rows, bytes of keys, bodies and rests of each chunk */
    private function places(string $packed): \Generator
    {
        for ($at = 0; $at < strlen($packed); $at += SpillWriter::CHUNK_BYTES) {
            /** @var array{1: int, 2: int, 3: int, 4: int, 5: int} $place */
            $place = unpack(SpillWriter::CHUNK, $packed, $at);
            yield [$place[1], $place[2], $place[3], $place[4], $place[5]];
        }
    }

    /** @return list<string> */
    private function list(string $joined): array
    {
        return $joined === '' ? [] : explode(Batch::ROW_END, substr($joined, 0, -1));
    }

    /** @param array<string, int> $without keys whose rows are left out */
    public function rowsWithout(int $partition, array $without): SpilledRows
    {
        if ($without === []) {
            return $this->rows($partition);
        }
        $keys = $bodies = $rests = [];
        $lines = new PackedLines;
        foreach ($this->stream($partition) as $chunk) {
            foreach ($chunk->keys as $place => $key) {
                if (! isset($without[$key])) {
                    $keys[] = $key;
                    $bodies[] = $chunk->bodies[$place];
                    $lines->append(pack('J', $chunk->lines->at($place)), 0);
                    if ($chunk->rests !== []) {
                        $rests[] = $chunk->rests[$place];
                    }
                }
            }
        }

        return new SpilledRows($keys, $bodies, $rests, $lines);
    }
}

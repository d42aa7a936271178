<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Delimited\StrayQuotes;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Row\Row;

/**
 * Where the rows of a side stand, by their key, so that any row is found without reading the side: the hash of each key with the stretch of
 * the
 * file that its row is in, sorted by the hash. A stretch is then read and its rows are looked at. Twelve bytes a row, and memory for a
 * 256th of them.
 *
 * Text that can only be read from its beginning (packed, or of two bytes a letter) is one stretch: it is found there too, and read until
 * then.
 */
final readonly class KeyOffsetIndex
{
    private const RANGE_BYTES = 65_536;

    private const HASH_BYTES = 8;

    private const ENTRY_BYTES = 12;

    /** Bytes of a bucket that are held before they are written aside. */
    private const HELD_BYTES = 65_536;

    /**
     * @param  non-empty-list<int>  $positions  of the key columns
     * @param  list<array{int, int|null, int}>  $ranges  where each stretch begins and ends, and how many lines are before it
     */
    private function __construct(
        private string $path,
        private Reader $reader,
        private array $positions,
        private KeyForm $form,
        private array $ranges,
    ) {}

    /**
     * Reads the side once and writes down where its keys are.
     *
     * @param  non-empty-list<int>  $positions  of the key columns
     * @param  string  $path  of the file that is made; the stretches stand beside it
     * @param  string  $folder  for what is put aside meanwhile
     * @param  (callable(int): void)|null  $onRange  told after each stretch up to which byte the side was read
     */
    public static function write(
        Reader $reader,
        array $positions,
        KeyForm $form,
        string $path,
        string $folder,
        ?callable $onRange = null,
    ): void {
        $ranges = $reader->ranges(self::RANGE_BYTES);
        try {
            self::writeRanges($reader, $ranges, $positions, $form, $path, $folder, $onRange);
        } catch (StrayQuotes) {
            // Only from the beginning can be told which quotes mean something.
            self::writeRanges($reader, [new ByteRange], $positions, $form, $path, $folder, $onRange);
        }
    }

    /**
     * @param  non-empty-list<int>  $positions
     * @return self|null null if nothing was written there
     */
    public static function at(string $path, Reader $reader, array $positions, KeyForm $form): ?self
    {
        $ranges = is_file($path) ? @file_get_contents("{$path}.ranges") : false;
        if ($ranges === false) {
            return null;
        }
        /** @var list<array{int, int|null, int}> $held */
        $held = unserialize($ranges, ['allowed_classes' => false]);

        return new self($path, $reader, $positions, $form, $held);
    }

    /**
     * The first row of a key in the order of the side.
     *
     * @param  list<string>  $key  as it is written on this side
     */
    public function row(array $key): ?Row
    {
        $canonical = $this->form->canonical($key);
        foreach ($this->rangesOf(self::hash($canonical)) as $number) {
            [$start, $end, $linesBefore] = $this->ranges[$number];
            foreach ($this->reader->batches(new ByteRange($start, $end)) as $batch) {
                if (! $batch instanceof Batch) {
                    continue;
                }
                foreach (self::keys($batch, $this->positions, $this->form) as $row => $found) {
                    if ($found === $canonical) {
                        return $this->rowOf($batch, $row, $linesBefore);
                    }
                }
            }
        }

        return null;
    }

    /**
     * @param  list<ByteRange>  $ranges
     * @param  non-empty-list<int>  $positions
     */
    private static function writeRanges(
        Reader $reader,
        array $ranges,
        array $positions,
        KeyForm $form,
        string $path,
        string $folder,
        ?callable $onRange,
    ): void {
        $buckets = array_fill(0, 256, '');
        $held = [];
        $lines = 0;
        foreach ($ranges as $number => $range) {
            $place = pack('N', $number);
            $batches = $reader->batches($range);
            foreach ($batches as $batch) {
                foreach ($batch instanceof Batch ? self::keys($batch, $positions, $form) : [] as $key) {
                    $hash = self::hash($key);
                    $bucket = ord($hash[0]);
                    $buckets[$bucket] .= $hash.$place;
                    if (strlen($buckets[$bucket]) >= self::HELD_BYTES) {
                        file_put_contents("{$folder}/keys-{$bucket}", $buckets[$bucket], FILE_APPEND);
                        $buckets[$bucket] = '';
                    }
                }
            }
            $held[] = [$range->start, $range->end, $lines];
            $lines += $batches->getReturn();
            $onRange === null || $onRange($range->end ?? $reader->bytes());
        }
        $file = new AtomicFile($path);
        foreach ($buckets as $bucket => $entries) {
            $entries = (string) @file_get_contents("{$folder}/keys-{$bucket}").$entries;
            @unlink("{$folder}/keys-{$bucket}");
            if ($entries !== '') {
                $sorted = str_split($entries, self::ENTRY_BYTES);
                sort($sorted, SORT_STRING);
                $file->write(implode('', $sorted));
            }
        }
        AtomicFile::put("{$path}.ranges", serialize($held));
        $file->finish();
    }

    /**
     * @param  non-empty-list<int>  $positions
     * @return \Generator<string, string> row as bytes => its key
     */
    private static function keys(Batch $batch, array $positions, KeyForm $form): \Generator
    {
        $most = max($positions) + 2;
        foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
            $cells = explode(Batch::CELL_END, $row, $most);
            $key = array_map(static fn(int $position): string => $cells[$position], $positions);
            if (implode('', $key) !== '') {
                yield $row => $form->canonical($key);
            }
        }
    }

    private function rowOf(Batch $batch, string $row, int $linesBefore): Row
    {
        $before = substr($batch->rows, 0, (int) strpos(Batch::ROW_END.$batch->rows.Batch::ROW_END, Batch::ROW_END.$row.Batch::ROW_END));
        $line = $batch->firstLine + $batch->linesOf($before) - 1;

        return new Row($linesBefore + $line, explode(Batch::CELL_END, $row));
    }

    /** @return list<int> stretches in which a key with this hash stands, in their order */
    private function rangesOf(string $hash): array
    {
        $file = fopen($this->path, 'rb') ?: throw new \LogicException('The places of keys were there a moment ago.');
        $entry = static function (int $number) use ($file): string {
            fseek($file, $number * self::ENTRY_BYTES);

            return (string) fread($file, self::ENTRY_BYTES);
        };
        [$low, $high] = [0, intdiv((int) filesize($this->path), self::ENTRY_BYTES)];
        $count = $high;
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            strcmp(substr($entry($middle), 0, self::HASH_BYTES), $hash) < 0 ? $low = $middle + 1 : $high = $middle;
        }
        $ranges = [];
        for (; $low < $count && str_starts_with($found = $entry($low), $hash); $low++) {
            /** @var array{1: int} $number */
            $number = unpack('N', $found, self::HASH_BYTES);
            $ranges[$number[1]] = $number[1];
        }
        fclose($file);

        return array_values($ranges);
    }

    private static function hash(string $key): string
    {
        return hash('xxh3', $key, true);
    }
}

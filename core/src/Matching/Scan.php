<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpillWriter;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\DistinctSpill;

/** Reads one range of a side, puts its keyed rows aside by partition, and writes down what has no key or was refused. */
final readonly class Scan
{
    /**
     * @param array<string, true> $bridgedKeys canonical keys of either end of a bridge: their rows are brought together in a partition of
     *     their own
     */
    public function __construct(
        private Side $side,
        private Reader $reader,
        private RowEncoding $layout,
        private KeyForm $keyForm,
        private array $bridgedKeys,
        private int $partitions,
        private int $bufferBytes,
        private BlockFigures $figures,
    ) {}

    /**
     * @param  string  $path  of the spill; the findings stand beside it
     * @param  callable(int, int): void  $onProgress  told after each block: where in the file reading stands, and how many records were
     *     read
     */
    public function run(ByteRange $range, string $path, callable $onProgress): ScanResult
    {
        $output = $this->begin($path);
        $batches = $this->batches($range, $output, $onProgress);
        foreach ($batches as $batch) {
            $this->take($batch, $output);
        }

        return $this->finish($output, $batches->getReturn());
    }

    /** @return \Generator<int, list<string>> the rows of each block, for a look at the beginning */
    public function rowsOnly(): \Generator
    {
        foreach ($this->reader->batches() as $batch) {
            if ($batch instanceof Batch) {
                yield explode(Batch::ROW_END, $batch->rows);
            }
        }
    }

    public function begin(string $path): ScanOutput
    {
        return new ScanOutput(
            new SpillWriter($path, $this->partitions + 1, $this->bufferBytes),
            new FindingSpool($path.'.findings'),
            new DistinctSpill($path.'.distinct'),
        );
    }

    /**
     * @param  callable(int, int): void  $onProgress
     * @return \Generator<int, Batch|RefusedRecord, mixed, int>
     */
    public function batches(ByteRange $range, ScanOutput $output, callable $onProgress): \Generator
    {
        $batches = $this->reader->batches($range, static function (int $position) use ($onProgress, $output): void {
            $onProgress($position, $output->result->read);
        });
        foreach ($batches as $batch) {
            if ($batch instanceof Batch) {
                $this->figures->count($batch, $output);
            }
            yield $batch;
        }

        return $batches->getReturn();
    }

    public function take(Batch|RefusedRecord $batch, ScanOutput $output): void
    {
        if ($batch instanceof Batch) {
            $this->put($batch, $output->spill, $output->findings, $output->result);

            return;
        }
        $output->result->read++;
        $output->result->refused++;
        $output->result->quotesLeftOpen += $batch->reason === RefusalReason::QuoteLeftOpen ? 1 : 0;
        $output->findings->add(new FindingEntry($batch->line, RowClass::Refused, $this->side, refused: $batch->aside()));
    }

    public function finish(ScanOutput $output, int $lines): ScanResult
    {
        $output->result->lines = $lines;
        $output->spill->finish();
        $output->result->hasFindings = $output->findings->finish();
        $output->result->distinct = $output->distinct->finish();

        return $output->result;
    }

    private function put(Batch $batch, SpillWriter $spill, FindingSpool $findings, ScanResult $result): void
    {
        $layout = $this->layout;
        [$isWhole, $restIsKey] = [$layout->isWhole, $layout->restIsKey];
        $isPlain = $this->keyForm->isPlain;
        $keepsRest = ! $isWhole && ! ($restIsKey && $isPlain);
        $keyColumns = count($layout->keyPositions);
        // In rows that were arranged the key always comes first.
        $cutsKey = ! $isWhole || $layout->keyComesFirst;
        $blankKey = str_repeat(Batch::CELL_END, $keyColumns - 1);
        $mask = $this->partitions - 1;
        $inner = $batch->innerLineEnd;
        $line = $batch->firstLine;
        $rows = explode(Batch::ROW_END, $isWhole ? $batch->rows : $layout->arranged($batch->rows));
        foreach ($rows as $row) {
            $rest = '';
            $body = $row;
            if (! $isWhole) {
                $end = (int) strpos($row, RowEncoding::BODY);
                $rest = substr($row, 0, $end);
                $body = substr($row, $end + 1);
            }
            if ($cutsKey && $isPlain && ! $restIsKey) {
                $end = -1;
                for ($column = 0; $column < $keyColumns && $end !== false; $column++) {
                    $end = strpos($isWhole ? $row : $rest, Batch::CELL_END, $end + 1);
                }
                $key = $end === false ? ($isWhole ? $row : $rest) : substr($row, 0, $end);
            } else {
                $key = $restIsKey && $isPlain ? $rest : $this->key($isWhole ? $row : $rest);
            }
            if ($key === $blankKey) {
                $result->unkeyed++;
                $asDelivered = $isWhole ? $row : $layout->row($body, $rest);
                $findings->add(
                    new FindingEntry(
                        $line,
                        RowClass::Unkeyed,
                        $this->side,
                        $key,
                        source: $this->side === Side::Source ? $asDelivered : null,
                        target: $this->side === Side::Target ? $asDelivered : null,
                    ),
                );
            } else {
                if (
                    $keyColumns > 1 &&
                    ($key[0] === Batch::CELL_END ||
                        $key[-1] === Batch::CELL_END ||
                        ($keyColumns > 2 && str_contains($key, Batch::CELL_END.Batch::CELL_END)))
                ) {
                    $result->partlyBlank++;
                }
                $partition = $this->bridgedKeys !== [] && isset($this->bridgedKeys[$key]) ? $this->partitions : crc32($key) & $mask;
                $spill->keys[$partition] .= $key.Batch::ROW_END;
                $spill->bodies[$partition] .= $body.Batch::ROW_END;
                if ($keepsRest) {
                    $spill->rests[$partition] .= $rest.Batch::ROW_END;
                }
                $spill->lines[$partition][] = $line;
            }
            if ($inner !== '' && $layout->repeatsCells) {
                $row = $layout->row($body, $rest);
            }
            // Called for few: a call for each row is felt.
            $line += $inner === '' ? 1 : ($inner === "\n" ? 1 + substr_count($row, "\n") : $batch->linesOf($row));
        }
        $spill->grownBy(strlen($batch->rows) + 48 * count($rows));
        $result->read += count($rows);
    }

    /** @param string $cells a whole row, or the rest of an arranged one, which begins with the key */
    private function key(string $cells): string
    {
        $cells = explode(Batch::CELL_END, $cells);
        $key = [];
        foreach ($this->layout->isWhole ? $this->layout->keyPositions : array_keys($this->layout->keyPositions) as $position) {
            $key[] = $cells[$position];
        }

        return $this->keyForm->isPlain ? implode(Batch::CELL_END, $key) : $this->keyForm->canonical($key);
    }
}

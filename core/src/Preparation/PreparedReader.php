<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Matching\Spill\WorkspaceReader;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/** Reads a prepared side. A row's line is its number among the records; place() says where it was delivered. */
final class PreparedReader implements Reader
{
    private const BLOCK_BYTES = 131_072;

    private const PACKED_BYTES = 8;

    private readonly Columns $columns;

    public readonly PreparationLedger $ledger;

    private ?WorkspaceReader $packedPlaces = null;

    /** @var array{int, string} the packed places that were read last: from which record on, and their bytes */
    private array $window = [1, ''];

    public function __construct(private readonly PreparedSide $side, private readonly string $name)
    {
        $this->ledger = $side->ledger();
        $this->columns = Columns::named($name, $this->ledger->columns);
    }

    public function columns(): Columns
    {
        return $this->columns;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function bytes(): int
    {
        return (int) @filesize($this->side->path('rows'));
    }

    public function side(): PreparedSide
    {
        return $this->side;
    }

    public function place(int $line): RecordPlace
    {
        [$from, $bytes] = $this->window;
        $at = ($line - $from) * self::PACKED_BYTES;
        if ($at < 0 || $at + self::PACKED_BYTES > strlen($bytes)) {
            $this->packedPlaces ??= WorkspaceReader::forReading($this->side->path('packed-places'));
            $records = $this->ledger->prepared + $this->ledger->refused;
            $this->window = [
                $line,
                $this->packedPlaces->readAt(
                    ($line - 1) * self::PACKED_BYTES,
                    self::PACKED_BYTES * max(1, min(1_024, $records - $line + 1)),
                ),
            ];
            [$at, $bytes] = [0, $this->window[1]];
        }
        /** @var array{packed: int} $fields */
        $fields = unpack('Jpacked', $bytes, $at);

        return RecordPlace::ofPacked($fields['packed']);
    }

    /** Whether its rows stand in the order in which they were delivered: steps may have sorted or regrouped them. */
    public function keepsOrder(): bool
    {
        $handle = @fopen($this->side->path('packed-places'), 'rb') ?: throw WorkspaceFailure::reading('packed-places');
        $before = 0;
        while (($block = (string) fread($handle, self::BLOCK_BYTES)) !== '') {
            foreach (unpack('J*', $block) ?: [] as $place) {
                if ($place < $before) {
                    fclose($handle);

                    return false;
                }
                $before = $place;
            }
        }
        fclose($handle);

        return true;
    }

    public function records(?callable $onBytes = null): \Generator
    {
        foreach ($this->batches(new ByteRange, $onBytes) as $batch) {
            if ($batch instanceof RefusedRecord) {
                yield $batch;

                continue;
            }
            foreach (explode(Batch::ROW_END, $batch->rows) as $nth => $row) {
                yield new Row($batch->firstLine + $nth, explode(Batch::CELL_END, $row));
            }
        }
    }

    public function batches(ByteRange $range = new ByteRange, ?callable $onBytes = null): \Generator
    {
        $handle = @fopen($this->side->path('rows'), 'rb') ?: throw WorkspaceFailure::reading('rows');
        try {
            fseek($handle, $range->start);
            $left = $range->end === null ? PHP_INT_MAX : $range->end - $range->start;
            $position = $range->start;
            $line = 0;
            $rest = '';
            while ($left > 0 && ($block = (string) fread($handle, min(self::BLOCK_BYTES, $left))) !== '') {
                $left -= strlen($block);
                $position += strlen($block);
                $rest .= $block;
                $cut = strrpos($rest, Batch::ROW_END);
                if ($cut !== false) {
                    foreach ($this->stretches(substr($rest, 0, $cut), $line + 1) as $stretch) {
                        yield $stretch;
                    }
                    $line += 1 + substr_count($rest, Batch::ROW_END, 0, $cut);
                    $rest = substr($rest, $cut + 1);
                }
                $onBytes === null || $onBytes($position);
            }
        } finally {
            fclose($handle);
        }

        return $line;
    }

    public function ranges(int $bytes): array
    {
        $handle = @fopen($this->side->path('rows'), 'rb') ?: throw WorkspaceFailure::reading('rows');
        $starts = [0];
        for ($at = $bytes; $at < $this->bytes() - $bytes; $at += $bytes) {
            fseek($handle, $at);
            $start = $at;
            while (($block = (string) fread($handle, self::BLOCK_BYTES)) !== '') {
                $found = strpos($block, Batch::ROW_END);
                if ($found !== false) {
                    $start += $found + 1;
                    $starts[] = $start;
                    break;
                }
                $start += strlen($block);
            }
            $at = max($at, $start);
        }
        fclose($handle);

        return array_map(static fn(int $start, ?int $end): ByteRange => new ByteRange($start, $end), $starts, [
            ...array_slice($starts, 1),
            null,
        ]);
    }

    /** @return \Generator<int, Batch|RefusedRecord> rows in stretches, with refused records between them */
    private function stretches(string $rows, int $line): \Generator
    {
        if (! str_contains($rows, PreparedSide::REFUSED)) {
            yield new Batch($rows, $line);

            return;
        }
        $held = [];
        foreach (explode(Batch::ROW_END, $rows) as $row) {
            if (($row[0] ?? '') === PreparedSide::REFUSED) {
                if ($held !== []) {
                    yield new Batch(implode(Batch::ROW_END, $held), $line - count($held));
                    $held = [];
                }
                /** @var array{reason: string, facts: array<string, string|int>, raw: string, digest: string} $refused */
                $refused = json_decode(substr($row, 1), true, 8, JSON_THROW_ON_ERROR);
                yield RefusedRecord::restored($line, ['raw' => (string) base64_decode($refused['raw'], true)] + $refused);
            } else {
                $held[] = $row;
            }
            $line++;
        }
        if ($held !== []) {
            yield new Batch(implode(Batch::ROW_END, $held), $line - count($held));
        }
    }
}

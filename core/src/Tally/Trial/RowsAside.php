<?php

declare(strict_types=1);

namespace NineTally\Core\Tally\Trial;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Row;

/**
 * Some rows of a side, put aside in a file to be compared like a delivery, several times if need be. Their lines lead to where they were
 * delivered. Holds 8 bytes a row.
 */
final class RowsAside implements Reader
{
    private const BUFFER_BYTES = 1_048_576;

    private readonly Columns $columns;

    /** Packed places of all rows, 8 bytes each. */
    private string $places = '';

    private string $buffer = '';

    private int $bytes = 0;

    /** @param list<string> $names */
    public function __construct(private readonly string $name, array $names, private readonly string $path)
    {
        $this->columns = Columns::named($name, $names);
    }

    /** @param list<string> $cells */
    public function add(RecordPlace $place, array $cells): void
    {
        $this->places .= pack('J', $place->packed());
        $this->buffer .= implode(Batch::CELL_END, $cells).Batch::ROW_END;
        if (strlen($this->buffer) > self::BUFFER_BYTES) {
            $this->write();
        }
    }

    public function rows(): int
    {
        return intdiv(strlen($this->places), 8);
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
        return $this->bytes + strlen($this->buffer);
    }

    public function place(int $line): RecordPlace
    {
        /** @var array{1: int} $place */
        $place = unpack('J', $this->places, 8 * ($line - 1));

        return RecordPlace::ofPacked($place[1]);
    }

    public function records(?callable $onBytes = null): \Generator
    {
        $line = 0;
        foreach ($this->blocks($onBytes) as $rows) {
            foreach (explode(Batch::ROW_END, $rows) as $row) {
                yield new Row(++$line, explode(Batch::CELL_END, $row));
            }
        }
    }

    public function batches(ByteRange $range = new ByteRange, ?callable $onBytes = null): \Generator
    {
        $line = 1;
        foreach ($this->blocks($onBytes) as $rows) {
            yield new Batch($rows, $line);
            $line += 1 + substr_count($rows, Batch::ROW_END);
        }

        return $line - 1;
    }

    public function ranges(int $bytes): array
    {
        return [new ByteRange];
    }

    /**
     * @param  (callable(int): void)|null  $onBytes
     * @return \Generator<int, string> many rows at a time
     */
    private function blocks(?callable $onBytes): \Generator
    {
        $this->write();
        if ($this->rows() === 0) {
            return;
        }
        $file = @fopen($this->path, 'rb') ?: throw WorkspaceFailure::reading($this->path);
        $rest = '';
        while (($read = (string) fread($file, self::BUFFER_BYTES)) !== '') {
            $rest .= $read;
            $end = strrpos($rest, Batch::ROW_END);
            if ($end !== false) {
                yield substr($rest, 0, $end);
                $rest = substr($rest, $end + 1);
            }
            if ($onBytes !== null) {
                $onBytes((int) ftell($file));
            }
        }
        fclose($file);
    }

    private function write(): void
    {
        if ($this->buffer === '') {
            return;
        }
        if (@file_put_contents($this->path, $this->buffer, FILE_APPEND) !== strlen($this->buffer)) {
            throw WorkspaceFailure::writing($this->path);
        }
        $this->bytes += strlen($this->buffer);
        $this->buffer = '';
    }
}

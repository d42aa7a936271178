<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Row\RefusedRecord;

/**
 * A side as it is when its steps have run, kept in a folder: records as bytes between two that UTF-8 never has, the packed place of each,
 * what was left out and what was condensed, and the ledger.
 *
 * The folder is whole when its ledger is there. It is made of the delivery and the steps alone, so it is kept by their hashes.
 */
final readonly class PreparedSide
{
    /** Begins a refused record among the rows; it occurs in no UTF-8 text. */
    public const REFUSED = "\xFD";

    /** Of what is written: sides of another format are made again. 2: refused records keep facts. 3: the ledger in the words of today. */
    public const FORMAT = 3;

    private const BUFFER_BYTES = 262_144;

    private const RECORDS_BETWEEN_REPORTS = 20_000;

    private function __construct(private string $folder) {}

    public static function in(string $folder): self
    {
        return new self($folder);
    }

    public function isWhole(): bool
    {
        return is_file("{$this->folder}/ledger.json");
    }

    /**
     * @param  array<string, string>  $parameters
     * @param  callable(int, int): void  $onProgress  told bytes and records read
     *
     * @throws UnusableStep
     * @throws \NineTally\Core\Intake\UnreadableFile
     */
    public function make(
        PartStack $parts,
        Preparation $preparation,
        string $side,
        callable $onProgress,
        References $references = new NoReferences,
        array $parameters = [],
    ): void {
        if (! is_dir($this->folder) && ! @mkdir($this->folder, 0700, true) && ! is_dir($this->folder)) {
            throw \NineTally\Core\Matching\Spill\WorkspaceFailure::writing($this->folder);
        }
        $columns = $preparation->columns($parts->columns, $side);
        $files = [
            'rows' => new AtomicFile("{$this->folder}/rows"),
            'packed-places' => new AtomicFile("{$this->folder}/packed-places"),
            'left-out' => new AtomicFile("{$this->folder}/left-out"),
            'condensed' => new AtomicFile("{$this->folder}/condensed"),
        ];
        $ledger = [
            'columns' => $columns,
            'deliveredColumns' => $parts->columns,
            'read' => 0,
            'refused' => 0,
            'delivered' => 0,
            'prepared' => 0,
            'steps' => [],
            'references' => [],
        ];
        $figures = $names = [];
        $buffers = array_fill_keys(array_keys($files), '');
        $write = static function (string $name, string $bytes) use (&$buffers, $files): void {
            $buffers[$name] .= $bytes;
            if (strlen($buffers[$name]) > self::BUFFER_BYTES) {
                $files[$name]->write($buffers[$name]);
                $buffers[$name] = '';
            }
        };
        $contextOf = function (int $number, array $before) use (&$figures, &$names, $references, $parameters, $write): StepContext {
            $names[$number] = $before;

            return new StepContext(
                $figures[$number] = new StepFigures,
                $this->folder,
                $references,
                $parameters,
                static fn(int $packedPlace, array $cells, ?int $kept) => $write(
                    'left-out',
                    pack('JJNN', $packedPlace, $kept ?? 0, $number, strlen($row = implode(Batch::CELL_END, $cells))).$row,
                ),
                static fn(int $into, int $packedPlace) => $write('condensed', pack('JJ', $into, $packedPlace)),
            );
        };
        $bytesRead = 0;
        $delivered = function () use ($parts, &$ledger, &$bytesRead, $onProgress, $write): \Generator {
            $onBytes = static function (int $bytes) use (&$bytesRead): void {
                $bytesRead = $bytes;
            };
            foreach ($parts->records($onBytes) as $packedPlace => $record) {
                if (++$ledger['read'] % self::RECORDS_BETWEEN_REPORTS === 0) {
                    $onProgress($bytesRead, $ledger['read']);
                }
                if ($record instanceof RefusedRecord) {
                    $ledger['refused']++;
                    $write(
                        'rows',
                        self::REFUSED.
                            json_encode(['raw' => base64_encode($record->raw)] + $record->aside(), JSON_THROW_ON_ERROR).
                            Batch::ROW_END,
                    );
                    $write('packed-places', pack('J', $packedPlace));
                } else {
                    $ledger['delivered']++;
                    yield $packedPlace => $record;
                }
            }
        };
        try {
            foreach ($preparation->run($delivered(), $parts->columns, $contextOf, $side) as $packedPlace => $cells) {
                $ledger['prepared']++;
                $write('rows', implode(Batch::CELL_END, $cells).Batch::ROW_END);
                $write('packed-places', pack('J', $packedPlace));
            }
        } catch (\Throwable $problem) {
            array_map(static fn(AtomicFile $file) => $file->discard(), $files);
            throw $problem;
        }
        foreach ($files as $name => $file) {
            $file->write($buffers[$name]);
            $file->finish();
        }
        foreach ($preparation->working() as $number => $document) {
            $ledger['steps'][] = [
                'number' => $number,
                'id' => $document['id'],
                'kind' => $document['kind'],
                'sentence' => StepCatalogue::make($document)->sentence(),
                'columns' => $names[$number] ?? [],
                'figures' => ($figures[$number] ?? new StepFigures)->toArray(),
            ];
        }
        $ledger['references'] = $references->ledgers();
        PreparationLedger::of($ledger)->mustHold();
        AtomicFile::put(
            "{$this->folder}/ledger.json",
            json_encode($ledger, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE),
        );
    }

    public function ledger(): PreparationLedger
    {
        /** @var array<string, mixed> $ledger */
        $ledger = json_decode((string) file_get_contents("{$this->folder}/ledger.json"), true, 64, JSON_THROW_ON_ERROR);

        return PreparationLedger::of($ledger);
    }

    public function path(string $file): string
    {
        return "{$this->folder}/{$file}";
    }

    /**
     * Rows that steps left out, in the order in which they were.
     *
     * @return \Generator<int, LeftOutRow>
     */
    public function leftOut(): \Generator
    {
        $file = \NineTally\Core\Matching\Spill\WorkspaceReader::forReading($this->path('left-out'));
        while (($head = $file->read(24)) !== '') {
            /** @var array{packed: int, kept: int, step: int, size: int} $fields */
            $fields = unpack('Jpacked/Jkept/Nstep/Nsize', $head);
            yield new LeftOutRow(
                $fields['packed'],
                $fields['step'],
                explode(Batch::CELL_END, $fields['size'] === 0 ? '' : $file->read($fields['size'])),
                $fields['kept'] === 0 ? null : $fields['kept'],
            );
        }
    }
}

<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Tally\Workspace;

/** Some rows of a delivery, drawn across it, to try steps on. Drawn once, when it is taken, and kept. */
final readonly class DeliverySample
{
    /** Up to so many rows a delivery is its own sample. */
    private const ROWS = 5_000;

    /** Values (rows by columns). To read more for a sample takes longer than a person waits. */
    private const READ_AT_ONCE = 5_000_000;

    /**
     * @param bool $isPatient whether a sample is drawn however long it takes; else the beginning of a large delivery stands in for it until
     *     it is there
     */
    public function __construct(private DeliveryReader $reader, private PreparedSides $sides, private bool $isPatient = false) {}

    public function isWhole(Delivery $delivery): bool
    {
        return $delivery->delivered_count <= self::ROWS;
    }

    public function isBeginning(Delivery $delivery): bool
    {
        return ! $this->isPatient &&
            ! is_file($this->path($delivery)) &&
            $delivery->delivered_count * count($delivery->columns) > self::READ_AT_ONCE;
    }

    /** @return array{columns: list<string>, rows: list<array{int, list<string>}>} packed place and cells of each row */
    public function of(Delivery $delivery): array
    {
        $path = $this->path($delivery);
        if ($this->isBeginning($delivery)) {
            return $this->drawn($delivery, 1);
        }
        if (! is_file($path)) {
            @mkdir($this->sides->folder(), 0700, true);
            // By a hash of the row's number: registers repeat in steps, and every third row may well be of one kind. One in ten less, to
            // stay below.
            AtomicFile::put(
                $path,
                serialize(
                    $this->drawn($delivery, $this->isWhole($delivery) ? 1 : intdiv($delivery->delivered_count * 10, self::ROWS * 9) + 1),
                ),
            );
        }
        /** @var array{columns: list<string>, rows: list<array{int, list<string>}>} $sample */
        $sample = unserialize((string) file_get_contents($path), ['allowed_classes' => false]);

        return $sample;
    }

    /**
     * The first rows of the delivery after the steps, with their packed places.
     *
     * @return array{columns: list<string>, rows: list<array{int, list<string>}>}
     *
     * @throws NineTallyException when a step does not fit
     */
    public function head(Delivery $delivery, SideRules $rules, int $atMost): array
    {
        $stack = $this->reader->stack($delivery);
        $delivered = static function () use ($stack, $atMost): \Generator {
            $rows = 0;
            foreach ($stack->records() as $packedPlace => $record) {
                if (is_array($record)) {
                    yield $packedPlace => $record;
                    if (++$rows === $atMost) {
                        return;
                    }
                }
            }
        };
        $workspace = Workspace::make();
        try {
            $inputs = PreparationInputs::now($delivery->dataset, $rules);
            $rowsAfter = [];
            foreach (
                $rules->preparation->run(
                    $delivered(),
                    $stack->columns,
                    fn(int $number, array $names): StepContext => new StepContext(
                        new StepFigures,
                        $workspace->path,
                        $this->sides->references($inputs, $rules->preparation, $workspace->path),
                        $inputs->parameters,
                    ),
                )
                as $packedPlace => $cells
            ) {
                $rowsAfter[] = [$packedPlace, $cells];
            }

            return ['columns' => $rules->preparation->columns($stack->columns), 'rows' => $rowsAfter];
        } finally {
            $workspace->remove();
        }
    }

    /**
     * The first rows of the sample after the steps; as delivered where the steps do not fit.
     *
     * @return array{columns: list<string>, rows: list<list<string>>}
     */
    public function prepared(Delivery $delivery, SideRules $rules, int $atMost): array
    {
        ['columns' => $columns, 'rows' => $rows] = $this->of($delivery);
        $asDelivered = ['columns' => $columns, 'rows' => array_slice(array_column($rows, 1), 0, $atMost)];
        if ($rules->preparation->isEmpty()) {
            return $asDelivered;
        }
        $workspace = Workspace::make();
        try {
            $inputs = PreparationInputs::now($delivery->dataset, $rules);
            $delivered = static function () use ($rows): \Generator {
                foreach ($rows as [$packedPlace, $cells]) {
                    yield $packedPlace => $cells;
                }
            };
            $prepared = [];
            foreach (
                $rules->preparation->run(
                    $delivered(),
                    $columns,
                    fn(int $number, array $names): StepContext => new StepContext(
                        new StepFigures,
                        $workspace->path,
                        $this->sides->references($inputs, $rules->preparation, $workspace->path),
                        $inputs->parameters,
                    ),
                )
                as $cells
            ) {
                $prepared[] = $cells;
                if (count($prepared) === $atMost) {
                    break;
                }
            }

            return ['columns' => $rules->preparation->columns($columns), 'rows' => $prepared];
        } catch (NineTallyException) {
            return $asDelivered;
        } finally {
            $workspace->remove();
        }
    }

    private function path(Delivery $delivery): string
    {
        return "{$this->sides->folder()}/sample-{$this->sides->digestOf($delivery)}";
    }

    /**
     * @param  int  $every  one row of so many
     * @return array{columns: list<string>, rows: list<array{int, list<string>}>}
     */
    private function drawn(Delivery $delivery, int $every): array
    {
        $stack = $this->reader->stack($delivery);
        $rows = [];
        $nth = 0;
        foreach ($stack->records() as $packedPlace => $record) {
            if ($record instanceof RefusedRecord || crc32((string) $nth++) % $every !== 0) {
                continue;
            }
            $rows[] = [$packedPlace, $record];
            if (count($rows) === self::ROWS) {
                break;
            }
        }

        return ['columns' => $stack->columns, 'rows' => $rows];
    }
}

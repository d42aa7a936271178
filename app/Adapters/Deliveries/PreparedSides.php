<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use App\Models\DeliveryPart;
use Illuminate\Support\Facades\File;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\References;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Tally\EngineVersion;
use NineTally\Core\Totals\DeliveredSource;

/** Sides as they are when their steps have run, kept by the hashes of delivery and steps, so that nothing is computed twice. */
final readonly class PreparedSides
{
    private const SECONDS_BETWEEN_MARKS = 3_600;

    public function __construct(private DeliveryReader $reader, private string $folder) {}

    /**
     * The side as the engine reads it: the delivered file itself where it is one of delimited text and there are no steps.
     *
     * @param  (callable(int, int): void)|null  $onProgress  told bytes and records read while the side is prepared
     *
     * @throws \NineTally\Core\NineTallyException
     */
    public function reader(Delivery $delivery, SideRules $rules, PreparationInputs $inputs, ?callable $onProgress = null): Reader
    {
        if ($this->isReadAsDelivered($delivery, $rules)) {
            return $this->reader->openPart($delivery->parts->firstOrFail());
        }
        $side = $this->of($delivery, $rules, $inputs);
        if (! $side->isWhole()) {
            $side->make(
                $this->reader->stack($delivery),
                $rules->preparation,
                $delivery->side->value,
                $onProgress ?? static fn(int $bytes, int $records) => null,
                $this->references($inputs, $rules->preparation, $side->path('')),
                $inputs->parameters,
            );
        }

        return new PreparedReader($side, $delivery->file_name);
    }

    public function isReadAsDelivered(Delivery $delivery, SideRules $rules): bool
    {
        return $rules->preparation->isEmpty() &&
            $delivery->parts->count() === 1 &&
            $delivery->part_label_column === null &&
            $delivery->parts->firstOrFail()->partFormat()->kind === PartKind::Delimited;
    }

    /** The side where it is kept; it may not have been made yet. */
    public function of(Delivery $delivery, SideRules $rules, PreparationInputs $inputs): PreparedSide
    {
        $digest = hash(
            'sha256',
            json_encode(
                [
                    $this->digestOf($delivery),
                    $rules->preparation->digest(),
                    $inputs->of($rules),
                    EngineVersion::all(),
                    PreparedSide::FORMAT,
                ],
                JSON_THROW_ON_ERROR,
            ),
        );

        $folder = "{$this->folder}/{$digest}";
        if (is_dir($folder) && (int) @filemtime($folder) < time() - self::SECONDS_BETWEEN_MARKS) {
            @touch($folder);
        }
        foreach ([$delivery->id, ...array_values($inputs->references)] as $read) {
            $this->note($read, $digest);
        }

        return PreparedSide::in($folder);
    }

    /**
     * Removes every side that was made from a delivery, or with one, and what was drawn from any: it is drawn again when somebody asks.
     */
    public function forget(Delivery $delivery): void
    {
        foreach (glob("{$this->folder}/of-{$delivery->id}-*") ?: [] as $note) {
            File::deleteDirectory($this->folder.'/'.substr(basename($note), strlen("of-{$delivery->id}-")));
            @unlink($note);
        }
        // Sides that were made before they were noted.
        foreach (glob("{$this->folder}/*", GLOB_ONLYDIR) ?: [] as $folder) {
            if (ctype_xdigit(basename($folder)) && glob("{$this->folder}/of-*-".basename($folder)) === []) {
                File::deleteDirectory($folder);
            }
        }
        foreach (['sample-*', 'trial-*', 'forgiven-*', 'matched-*'] as $drawn) {
            foreach (glob("{$this->folder}/{$drawn}") ?: [] as $path) {
                is_dir($path) ? File::deleteDirectory($path) : @unlink($path);
            }
        }
    }

    /** Of a folder that is called by hashes nobody could tell what is in it. */
    private function note(int $delivery, string $digest): void
    {
        $note = "{$this->folder}/of-{$delivery}-{$digest}";
        if (! is_file($note)) {
            @mkdir($this->folder, 0700, true);
            @touch($note);
        }
    }

    /** One for all deliveries that hold the same rows. */
    public function digestOf(Delivery $delivery): string
    {
        return hash(
            'sha256',
            json_encode(
                [
                    $delivery->part_label_column,
                    $delivery->parts
                        ->map(static fn(DeliveryPart $part): array => [$part->digest, $part->partFormat()->toArray(), $part->part_label])
                        ->all(),
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
    }

    /** @param string $folder for rows that the steps of a reference write aside */
    public function references(PreparationInputs $inputs, Preparation $preparation, string $folder): References
    {
        return DeliveredReferences::of($this->reader, new MatchedTable($this), $inputs, $preparation, $folder);
    }

    public function records(PreparationInputs $inputs): RecordSource
    {
        return new RecordDeliveries($this->reader, $inputs->records);
    }

    /** @param array{source: Delivery, target: Delivery} $deliveries */
    public function deliveries(array $deliveries): DeliveredSource
    {
        return new DeliveriesAsTheyCame($this->reader, $deliveries);
    }

    /**
     * Removes what nobody has used for long: a side can be prepared again from its delivery at any time.
     *
     * @return int folders removed
     */
    public function clearUp(int $unusedSeconds): int
    {
        $removed = 0;
        foreach (glob("{$this->folder}/*", GLOB_ONLYDIR) ?: [] as $folder) {
            // The mark of use is the time of the folder, which of() sets.
            if ((int) @filemtime($folder) < time() - $unusedSeconds) {
                array_map(unlink(...), array_filter(glob("{$folder}/*") ?: [], is_file(...)));
                $removed += @rmdir($folder) ? 1 : 0;
            }
        }
        foreach (glob("{$this->folder}/matched-*") ?: [] as $table) {
            if ((int) @filemtime($table) < time() - $unusedSeconds) {
                @unlink($table);
            }
        }
        foreach (glob("{$this->folder}/of-*") ?: [] as $note) {
            // A side that is about to be made is noted before it is there.
            if ((int) @filemtime($note) < time() - $unusedSeconds && ! is_dir($this->folder.'/'.substr((string) strrchr($note, '-'), 1))) {
                @unlink($note);
            }
        }

        return $removed;
    }

    public function folder(): string
    {
        return $this->folder;
    }
}

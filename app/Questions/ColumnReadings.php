<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\DeliveryProfile;
use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\PossibleReading;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\DeclaredReading;

/**
 * In which kinds and forms the columns of both sides can be read: by their profiles, where a column is as it was delivered, else by the
 * rows that are kept as a sample. What the plan declares of a column stands, and is not asked about again.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type ReadingDocument from PossibleReading
 */
final class ColumnReadings
{
    /** @var array<string, array<string, list<ReadingDocument>>> by side and column, of profiles that are there */
    private array $profiled;

    /** @var array<string, array{columns: list<string>, rows: list<list<string>>}> by side, once it was needed */
    private array $samples = [];

    public function __construct(private readonly DeliverySample $sample, private readonly BothSides $sides)
    {
        $this->profiled = ['source' => [], 'target' => []];
        foreach (Side::cases() as $side) {
            foreach (DeliveryProfile::query()->find($sides->delivery($side)->id)->columns ?? [] as $column) {
                /** @var list<ReadingDocument>|null $readings of profiles that were made before it was looked for */
                $readings = $column['readings'] ?? null;
                if ($readings !== null) {
                    $this->profiled[$side->value][$column['name']] = $readings;
                }
            }
        }
    }

    /**
     * @param  Declared  $declared  by the plan, for the column or its side
     * @return list<ReadingDocument>
     */
    public function of(Side $side, string $column, array $declared): array
    {
        $behind = $this->sides->rules($side)->preparation->formsBehind();
        $profiled = $behind->isWritten($column) || ! $this->sides->rules($side)->preparation->isEmpty()
            ? null
            : $this->profiled[$side->value][$column] ?? null;
        $readings = $profiled ?? $this->sampled($side, $column);

        return self::decided($readings, $declared);
    }

    /** @return array<string, list<string>> by column in their order: values of the sample, each once */
    public function columns(Side $side): array
    {
        $columns = [];
        foreach ($this->sampleOf($side)['columns'] as $column) {
            $columns[$column] = $this->values($side, $column);
        }

        return $columns;
    }

    /** @return list<string> values of the sample, each once */
    public function values(Side $side, string $column): array
    {
        ['columns' => $columns, 'rows' => $rows] = $this->sampleOf($side);
        $place = array_search($column, $columns, true);

        return $place === false
            ? []
            : array_values(array_unique(array_filter(array_column($rows, $place), static fn(string $value): bool => $value !== '')));
    }

    /** @return array{columns: list<string>, rows: list<list<string>>} */
    private function sampleOf(Side $side): array
    {
        return $this->samples[$side->value] ??= $this->sample->prepared(
            $this->sides->delivery($side),
            $this->sides->rules($side),
            PHP_INT_MAX,
        );
    }

    /** @return list<ReadingDocument> */
    private function sampled(Side $side, string $column): array
    {
        $profile = new ColumnProfile($column);
        $profile->seeAll($this->values($side, $column));

        return $profile->toArray()['readings'];
    }

    /**
     * @param  list<ReadingDocument>  $readings
     * @param  Declared  $declared
     * @return list<ReadingDocument> for each kind what the plan declares in place of what could be
     */
    private static function decided(array $readings, array $declared): array
    {
        $groups = [
            'number' => DeclaredForms::NUMBERS,
            'date' => DeclaredForms::DATES,
            'date-time' => DeclaredForms::DATES,
            'yes-no' => DeclaredForms::WORDS,
        ];
        $decided = [];
        foreach ($readings as $reading) {
            $ofKind = array_intersect_key($declared, array_flip($groups[$reading['kind']] ?? []));
            $reading = $ofKind === [] ? $reading : [...$reading, 'declares' => $ofKind, 'isWeak' => false];
            in_array($reading, $decided, true) || ($decided[] = $reading);
        }

        return $decided;
    }
}

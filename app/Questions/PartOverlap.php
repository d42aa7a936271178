<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Storage\PartFile;
use App\Models\Delivery;
use NineTally\Core\Matching\RowSets\RowMultiset;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Profile\SideProfile;
use NineTally\Core\Profile\ValueDistribution;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;

/**
 * What parts hold together: which of them share rows, and what changed since a delivery before. The same answer serves parts that wait
 * to be taken and the delivery that they become.
 *
 * @phpstan-import-type Column from ValueDistribution
 */
final readonly class PartOverlap implements Question
{
    private const RECORDS_BETWEEN_REPORTS = 5_000;

    /** More parts than this are not held against each other: their pairs would be too many. */
    private const MOST_PARTS_COMPARED = 60;

    /**
     * @param  non-empty-list<PartFile>  $parts
     * @param  int|null  $before  the delivery that they are held against
     * @param  string|null  $beforeDigest  of its parts, in their order
     * @param  list<string>  $key  columns that say which row is which, where that is known
     */
    public function __construct(private array $parts, private ?int $before, private ?string $beforeDigest, private array $key) {}

    public function kind(): string
    {
        return 'what-parts-hold';
    }

    public function about(): array
    {
        return [
            array_map(static fn(PartFile $part): array => $part->content(), $this->parts),
            $this->before,
            $this->beforeDigest,
            $this->key,
        ];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $now = $this->stack($material->reader, $this->parts);
        $delivery = $this->before === null ? null : Delivery::query()->findOrFail($this->before);
        $before =
            $delivery === null
                ? null
                : $this->stack($material->reader, array_values($delivery->parts->map(PartFile::delivered(...))->all()));
        $total = $now->bytes() + ($before?->bytes() ?? 0);

        return $material->withFolder(function (string $folder) use ($now, $before, $delivery, $total, $onProgress): array {
            $shared = $before === null ? [] : array_values(array_intersect($now->columns, $before->columns));
            sort($shared);
            $key = $shared !== [] && array_diff($this->key, $shared) === [] ? array_values(array_intersect($shared, $this->key)) : [];
            $ofParts =
                count($this->parts) < 2 || count($this->parts) > self::MOST_PARTS_COMPARED
                    ? []
                    : array_map(static fn(int $part): RowMultiset => new RowMultiset($folder), range(1, count($this->parts)));
            $nowRows = $before === null ? null : new RowMultiset($folder);
            $profile = SideProfile::ofRecords(
                $now->columns,
                $this->seen($now, $shared, $key, $nowRows, $ofParts, static fn(int $bytes) => $onProgress($bytes, $total)),
            );
            $overlaps = $this->overlaps($ofParts);
            if ($before === null || $nowRows === null) {
                return ['overlaps' => $overlaps, 'changes' => null];
            }
            $beforeRows = new RowMultiset($folder);
            $profileBefore = SideProfile::ofRecords(
                $before->columns,
                $this->seen($before, $shared, $key, $beforeRows, [], static fn(int $bytes) => $onProgress($now->bytes() + $bytes, $total)),
            );
            $rows = $shared === [] ? null : $beforeRows->changesTo($nowRows)->toArray();

            return ['overlaps' => $overlaps, 'changes' => [
                'since' => $delivery->number,
                'rows' => $rows,
                'key' => $key,
                'changes' => (new DeliveryDiff)->words($this->byName($profileBefore), $this->byName($profile)),
            ]];
        });
    }

    /** @param non-empty-list<PartFile>|list<PartFile> $parts */
    private function stack(DeliveryReader $reader, array $parts): PartStack
    {
        $opened = array_map(static fn(PartFile $part): array => ['reader' => $reader->open($part), 'label' => $part->name], $parts);

        return new PartStack($opened === [] ? throw new \LogicException('A delivery has at least one part.') : $opened);
    }

    /**
     * The rows, taken into the multisets as they go by.
     *
     * @param  list<string>  $shared  columns that count
     * @param  list<string>  $key
     * @param  list<RowMultiset>  $ofParts
     * @param  \Closure(int): void  $onProgress  told bytes
     * @return \Generator<int, list<string>>
     */
    private function seen(PartStack $stack, array $shared, array $key, ?RowMultiset $rows, array $ofParts, \Closure $onProgress): \Generator
    {
        $places = array_flip($stack->columns);
        $sharedPlaces = array_map(static fn(string $name): int => $places[$name], $shared);
        $keyPlaces = $key === [] ? null : array_map(static fn(string $name): int => (int) array_search($name, $shared, true), $key);
        $bytes = $seen = 0;
        $onBytes = static function (int $read) use (&$bytes): void {
            $bytes = $read;
        };
        foreach ($stack->records($onBytes) as $packedPlace => $record) {
            if (++$seen % self::RECORDS_BETWEEN_REPORTS === 0) {
                $onProgress($bytes);
            }
            if ($record instanceof RefusedRecord) {
                continue;
            }
            $rows?->add(array_map(static fn(int $place): string => $record[$place], $sharedPlaces), $keyPlaces);
            if ($ofParts !== []) {
                $ofParts[RecordPlace::ofPacked($packedPlace)->part - 1]->add($record);
            }
            yield $packedPlace => $record;
        }
    }

    /**
     * @param  list<RowMultiset>  $ofParts
     * @return list<array{one: int, other: int, rows: int, of: int}> parts, from 1, of which half the rows or more stand in the other
     */
    private function overlaps(array $ofParts): array
    {
        $overlaps = [];
        foreach ($ofParts as $one => $rows) {
            foreach (array_slice($ofParts, $one + 1, preserve_keys: true) as $other => $otherRows) {
                $changes = $rows->changesTo($otherRows);
                if ($changes->overlapByHalf()) {
                    $overlaps[] = [
                        'one' => $one + 1,
                        'other' => $other + 1,
                        'rows' => $changes->same,
                        'of' => min($rows->rows(), $otherRows->rows()),
                    ];
                }
            }
        }

        return $overlaps;
    }

    /** @return array<string, Column> */
    private function byName(SideProfile $profile): array
    {
        $columns = [];
        foreach ($profile->columns as $column) {
            $columns[$column->name] = $column->toArray();
        }

        return $columns;
    }
}

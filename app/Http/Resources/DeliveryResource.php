<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Delivery;
use App\Models\DeliveryPart;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Delivery $resource */
final class DeliveryResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->resource->id,
            'side' => $this->resource->side->value,
            'number' => $this->resource->number,
            'fileName' => $this->resource->file_name,
            'digest' => $this->resource->digest,
            'bytes' => $this->resource->bytes,
            'parts' => $this->resource->parts
                ->map(
                    fn(DeliveryPart $part): array => [
                        'number' => $part->number,
                        'fileName' => $part->file_name,
                        'partLabel' => $part->part_label,
                        'digest' => $part->digest,
                        'bytes' => $part->bytes,
                        'format' => $part->partFormat()->toArray(),
                        'lineEnds' => $this->lineEnds($part),
                        'missingColumns' => array_values(
                            array_diff($this->resource->columns, $part->columns, [$this->resource->part_label_column]),
                        ),
                        'packedIn' => $part->packed_in['name'] ?? null,
                        'query' => $part->query,
                        'read' => $part->read_count,
                        'refused' => $part->refused_count,
                        'delivered' => $part->delivered_count,
                    ],
                )
                ->values()
                ->all(),
            'partLabelColumn' => $this->resource->part_label_column,
            'asOf' => $this->resource->as_of?->toIso8601ZuluString(),
            'rowsClaimed' => $this->resource->rows_claimed,
            'claims' => $this->claims(),
            'tallies' => $this->resource->tallies()->orderBy('number')->pluck('number')->all(),
            'columns' => $this->resource->columns,
            'read' => $this->resource->read_count,
            'refused' => $this->resource->refused_count,
            'delivered' => $this->resource->delivered_count,
            'deliveredBy' => $this->resource->user->name,
            'deliveredAt' => $this->resource->delivered_at->toIso8601ZuluString(),
            'purge' => $this->resource->loadMissing('purge.user')->purge?->told(),
        ];
    }

    /** @return list<array{end: 'LF'|'CRLF'|'CR', records: int}>|null */
    private function lineEnds(DeliveryPart $part): ?array
    {
        return $part->line_ends === null
            ? null
            : array_map(
                static fn(string $end, int $records): array => ['end' => $end, 'records' => $records],
                array_keys($part->line_ends),
                array_values($part->line_ends),
            );
    }

    /** @return list<array<string, mixed>> each with what was said of it last, where it does not hold */
    private function claims(): array
    {
        $explanations = $this->resource->explanations->keyBy('claim');

        return array_map(
            static function (array $claim, int $place) use ($explanations): array {
                $explanation = $explanations->get($place);

                return [
                    ...$claim,
                    'explanation' =>
                        $explanation === null
                            ? null
                            : [
                                'text' => $explanation->explanation,
                                'by' => $explanation->user->name,
                                'at' => $explanation->explained_at->toIso8601ZuluString(),
                            ],
                ];
            },
            $this->resource->claims,
            array_keys($this->resource->claims),
        );
    }
}

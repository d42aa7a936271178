<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\PartFile;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Questions\Answers;
use App\Questions\PartOverlap;
use NineTally\Core\Row\Side;

/** What changed on a side since the delivery before: of a delivery, and of files that wait to become one. */
final readonly class CompareDeliveries
{
    public function __construct(private Answers $answers) {}

    /** @return array<string, mixed>|null null when there was none before, or it is still being looked at */
    public function ofDelivery(?Delivery $delivery): ?array
    {
        $earlier =
            $delivery === null
                ? null
                : Delivery::query()
                    ->where('dataset_id', $delivery->dataset_id)
                    ->where('side', $delivery->side)
                    ->where('number', $delivery->number - 1)
                    ->first();
        if ($delivery === null || $earlier === null) {
            return null;
        }
        $parts = array_values($delivery->parts->map(PartFile::delivered(...))->all());

        return $parts === []
            ? null
            : $this->shown($this->answers->to($this->question($delivery->dataset, $delivery->side, $parts, $earlier)));
    }

    /**
     * @param  list<string>  $receiptIds
     * @return array<string, mixed>
     */
    public function ofWaiting(Dataset $dataset, Side $side, array $receiptIds): array
    {
        $receipts = [];
        foreach ($receiptIds as $id) {
            $receipt = $dataset
                ->receipts()
                ->where('side', $side->value)
                ->whereKey($id)
                ->where('state', ReceiptState::Received->value)
                ->first();
            if ($receipt instanceof Receipt) {
                $receipts[] = $receipt;
            }
        }
        if ($receipts === []) {
            return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'overlaps' => [], 'changes' => null];
        }
        $answer = $this->answers->to(
            $this->question($dataset, $side, array_map(PartFile::waiting(...), $receipts), $dataset->latestDelivery($side)),
        );
        /** @var list<array{one: int, other: int, rows: int, of: int}> $overlaps */
        $overlaps = $answer->content['overlaps'] ?? [];

        return [
            ...$answer->progress(),
            'overlaps' => array_map(
                static fn(array $overlap): array => [
                    'one' => $receipts[$overlap['one'] - 1]->id,
                    'other' => $receipts[$overlap['other'] - 1]->id,
                    'rows' => $overlap['rows'],
                    'of' => $overlap['of'],
                ],
                $overlaps,
            ),
            'changes' => $this->shown($answer),
        ];
    }

    /** @param non-empty-list<PartFile> $parts */
    private function question(Dataset $dataset, Side $side, array $parts, ?Delivery $earlier): PartOverlap
    {
        /** @var list<array{source: string, target: string}> $key */
        $key = $earlier === null ? [] : $dataset->draft()->first()->document['key'] ?? [];

        return new PartOverlap(
            $parts,
            $earlier?->id,
            $earlier?->parts->map(static fn(DeliveryPart $part): string => $part->digest)->implode(','),
            array_column($key, $side->value),
        );
    }

    /** @return array<string, mixed>|null */
    private function shown(Answer $answer): ?array
    {
        /** @var array<string, mixed>|null $changes */
        $changes = $answer->content['changes'] ?? null;

        return $changes;
    }
}

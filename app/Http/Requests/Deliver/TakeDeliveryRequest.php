<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use App\Actions\Deliver\DeliveryTerms;
use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Row\Side;

final class TakeDeliveryRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'side' => ['required', 'in:source,target'],
            'parts' => ['required', 'array', 'min:1', 'max:500'],
            'parts.*.receipt' => ['required', 'uuid', 'distinct'],
            'parts.*.partLabel' => ['string', 'min:1', 'max:255'],
            'partLabelColumn' => ['nullable', 'string', 'max:255'],
            'asOf' => ['nullable', 'date'],
            'rowsClaimed' => ['nullable', 'integer', 'min:0'],
            'totals' => ['array', 'max:50'],
            'totals.*.column' => ['required', 'string', 'max:500', 'distinct'],
            'totals.*.sum' => ['required', 'string', 'max:200', 'regex:/^[+-]?[0-9][0-9 ,.]*$/'],
            'parts.*.trailer' => ['array:rows,totals'],
            'parts.*.trailer.rows' => ['nullable', 'integer', 'min:1', 'max:1000'],
            'parts.*.trailer.totals' => ['array', 'max:50'],
            'parts.*.trailer.totals.*.column' => ['required', 'string', 'max:500'],
            'parts.*.trailer.totals.*.cell' => ['required', 'integer', 'min:1', 'max:1000'],
        ];
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    /** @return non-empty-list<string> */
    public function receipts(): array
    {
        return array_column($this->parts(), 'receipt');
    }

    public function terms(): DeliveryTerms
    {
        return new DeliveryTerms(
            array_filter(array_column($this->parts(), 'partLabel', 'receipt'), static fn(?string $label): bool => $label !== null),
            $this->filled('partLabelColumn') ? $this->string('partLabelColumn')->toString() : null,
            $this->filled('asOf') ? $this->string('asOf')->toString() : null,
            $this->filled('rowsClaimed') ? $this->integer('rowsClaimed') : null,
            $this->totals(),
            $this->trailers(),
        );
    }

    /** @return array<string, string> by column */
    private function totals(): array
    {
        /** @var list<array{column: string, sum: string}> $totals */
        $totals = $this->validated('totals', []);

        return array_column($totals, 'sum', 'column');
    }

    /** @return array<string, array{rows: int|null, totals: array<string, int>}> by receipt */
    private function trailers(): array
    {
        $trailers = [];
        foreach ($this->parts() as $part) {
            if (isset($part['trailer'])) {
                $rows = $part['trailer']['rows'] ?? null;
                $trailers[$part['receipt']] = [
                    'rows' => $rows === null ? null : (int) $rows,
                    'totals' => array_map(intval(...), array_column($part['trailer']['totals'] ?? [], 'cell', 'column')),
                ];
            }
        }

        return $trailers;
    }

    /**
     * @return non-empty-list<array{receipt: string, partLabel?: string, trailer?: array{rows?: int|string|null,
     *     totals?: list<array{column: string, cell: int|string}>}}>
     */
    private function parts(): array
    {
        /**
         * @var non-empty-list<array{receipt: string, partLabel?: string, trailer?: array{rows?: int|string|null,
         *     totals?: list<array{column: string, cell: int|string}>}}> $parts
         */
        $parts = $this->validated('parts');

        return $parts;
    }
}

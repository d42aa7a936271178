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
            'parts.*.origin' => ['string', 'min:1', 'max:255'],
            'originColumn' => ['nullable', 'string', 'max:255'],
            'asOf' => ['nullable', 'date'],
            'rowsClaimed' => ['nullable', 'integer', 'min:0'],
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
            array_filter(array_column($this->parts(), 'origin', 'receipt'), static fn(?string $origin): bool => $origin !== null),
            $this->filled('originColumn') ? $this->string('originColumn')->toString() : null,
            $this->filled('asOf') ? $this->string('asOf')->toString() : null,
            $this->filled('rowsClaimed') ? $this->integer('rowsClaimed') : null,
        );
    }

    /** @return non-empty-list<array{receipt: string, origin?: string}> */
    private function parts(): array
    {
        /** @var non-empty-list<array{receipt: string, origin?: string}> $parts */
        $parts = $this->validated('parts');

        return $parts;
    }
}

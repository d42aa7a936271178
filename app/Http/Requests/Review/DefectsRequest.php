<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use Illuminate\Foundation\Http\FormRequest;

/** Which defects are meant: chosen acts, or all with some words, with a ticket, or that somebody mends. */
final class DefectsRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'acts' => ['array', 'min:1', 'max:500'],
            'acts.*' => ['integer'],
            'words' => ['string', 'max:200'],
            'ticket' => ['string', 'max:200'],
            'mends' => ['string', 'max:200'],
            'from' => ['integer', 'min:1'],
        ];
    }

    /** @return list<int>|null null where they are not chosen one by one */
    public function acts(): ?array
    {
        return $this->has('acts')
            ? array_values(array_map(static fn(mixed $act): int => is_numeric($act) ? (int) $act : 0, (array) $this->input('acts')))
            : null;
    }

    /** @return array{words?: string, ticket?: string, mends?: string} */
    public function filter(): array
    {
        $filter = [];
        foreach (['words', 'ticket', 'mends'] as $term) {
            if ($this->filled($term)) {
                $filter[$term] = $this->string($term)->toString();
            }
        }

        return $filter;
    }

    public function from(): int
    {
        return max(1, $this->integer('from', 1));
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Match;

use Illuminate\Foundation\Http\FormRequest;

final class SaveDraftRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'key' => ['present', 'array', 'max:20'],
            'key.*.source' => ['required', 'string'],
            'key.*.target' => ['required', 'string'],
            'columnPairs' => ['present', 'array', 'max:5000'],
            'columnPairs.*.source' => ['required', 'string'],
            'columnPairs.*.target' => ['required', 'string'],
            'leftOut' => ['required', 'array'],
            'leftOut.source' => ['present', 'array'],
            'leftOut.source.*' => ['string'],
            'leftOut.target' => ['present', 'array'],
            'leftOut.target.*' => ['string'],
        ];
    }

    /** @return list<array{source: string, target: string}> */
    public function key(): array
    {
        return $this->pairs('key');
    }

    /** @return list<array{source: string, target: string}> */
    public function columnPairs(): array
    {
        return $this->pairs('columnPairs');
    }

    /** @return array{source: list<string>, target: list<string>} */
    public function leftOut(): array
    {
        /** @var array{source: list<string>, target: list<string>} $leftOut */
        $leftOut = $this->validated('leftOut');

        return ['source' => $leftOut['source'], 'target' => $leftOut['target']];
    }

    /** @return list<array{source: string, target: string}> */
    private function pairs(string $part): array
    {
        /** @var list<array{source: string, target: string}> $pairs */
        $pairs = $this->validated($part);

        return array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], $pairs);
    }
}

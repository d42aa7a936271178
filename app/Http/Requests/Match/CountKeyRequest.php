<?php

declare(strict_types=1);

namespace App\Http\Requests\Match;

use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Row\Side;

final class CountKeyRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'key' => ['required', 'array', 'min:1', 'max:20'],
            'key.*.source' => ['required', 'string'],
            'key.*.target' => ['required', 'string'],
        ];
    }

    /** @return non-empty-list<string> */
    public function columns(Side $side): array
    {
        /** @var non-empty-list<array{source: string, target: string}> $key */
        $key = $this->validated('key');

        return array_map(static fn(array $column): string => $column[$side->value], $key);
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Sign;

use Illuminate\Foundation\Http\FormRequest;

/** What is signed, and who shows that it is them. */
final class SignRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'items' => ['required', 'list', 'max:200'],
            'items.*.tally' => ['required', 'integer', 'distinct'],
            'items.*.digest' => ['required', 'string', 'size:64'],
            'password' => ['required', 'string', 'max:1000'],
            'code' => ['nullable', 'string', 'max:100'],
        ];
    }

    /** @return non-empty-array<int, string> */
    public function seen(): array
    {
        /** @var non-empty-list<array{tally: int|string, digest: string}> $items */
        $items = $this->validated('items');
        $seen = [];
        foreach ($items as ['tally' => $tally, 'digest' => $digest]) {
            $seen[(int) $tally] = $digest;
        }

        return $seen;
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }

    public function code(): string
    {
        return $this->string('code')->trim()->toString();
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use Illuminate\Foundation\Http\FormRequest;

final class ForgivenRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'from' => ['sometimes', 'integer', 'min:1'],
            'limit' => ['sometimes', 'integer', 'min:1', 'max:200'],
            'text' => ['sometimes', 'nullable', 'string', 'max:200'],
            'as' => ['sometimes', 'in:csv,json-lines'],
        ];
    }

    public function from(): int
    {
        return max(1, $this->integer('from', 1));
    }

    public function limit(): int
    {
        return $this->integer('limit', 100);
    }

    /** What somebody types may begin with a space, and mean it. */
    public function text(): ?string
    {
        $text = FilterRequest::sentIn($this)['text'] ?? null;

        return is_string($text) && $text !== '' ? $text : null;
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use App\Models\Tally;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** What a comment is about, and of a new one what it says and whom it mentions. */
final class CommentRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $tally = $this->route('tally');
        $members = Rule::exists('memberships', 'user_id')->where('migration_id', $tally instanceof Tally ? $tally->migration->id : 0);

        return [
            'kind' => ['required', 'in:cell,row,pattern,class'],
            'target' => ['required', 'string', 'max:40'],
            ...$this->isMethod('GET')
                ? []
                : [
                    'text' => ['required', 'string', 'max:4000'],
                    'mentions' => ['array', 'max:20'],
                    'mentions.*' => ['integer', 'distinct', $members],
                ],
        ];
    }

    public function kind(): string
    {
        return $this->string('kind')->toString();
    }

    public function target(): string
    {
        return $this->string('target')->toString();
    }

    public function text(): string
    {
        return $this->string('text')->trim()->toString();
    }

    /** @return list<int> people */
    public function mentions(): array
    {
        return array_values(array_map(static fn(mixed $id): int => is_numeric($id) ? (int) $id : 0, (array) $this->input('mentions', [])));
    }
}

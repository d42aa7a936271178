<?php

declare(strict_types=1);

namespace App\Http\Requests\Retention;

use App\Models\Migration;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Whose content is purged, why, and who shows that it is them; before that, whose would be. */
final class PurgeRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $migration = $this->route('migration');
        $datasets = $migration instanceof Migration ? $migration->datasets()->pluck('id')->all() : [];
        $isAct = str_ends_with($this->path(), '/purges');

        return [
            'deliveries' => ['required', 'list', 'max:1000'],
            'deliveries.*' => ['integer', 'distinct', Rule::exists('deliveries', 'id')->whereIn('dataset_id', $datasets)],
            ...$isAct ? [
                'reason' => ['required', 'string', 'max:1000'],
                'password' => ['required', 'string', 'max:1000'],
                'code' => ['nullable', 'string', 'max:100'],
            ] : [],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'deliveries.required' => 'Choose the deliveries whose content is meant.',
            'deliveries.*.exists' => 'There is no such delivery in this migration.',
            'reason.required' => 'Say why the content is purged: by which rule, or who asked for it.',
        ];
    }

    /** @return non-empty-list<int> */
    public function deliveries(): array
    {
        /** @var non-empty-list<int> $deliveries */
        $deliveries = $this->validated('deliveries');

        return array_map(intval(...), $deliveries);
    }

    public function reason(): string
    {
        return $this->string('reason')->trim()->toString();
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Board;

use Illuminate\Foundation\Http\FormRequest;

final class AddMigrationRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100', 'unique:migrations'],
            'sourceLabel' => ['required', 'string', 'max:60'],
            'targetLabel' => ['required', 'string', 'max:60'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.unique' => 'There is a migration of this name already. Choose another name.'];
    }

    /** @return array{name: string, source_label: string, target_label: string} */
    public function values(): array
    {
        return [
            'name' => $this->string('name')->trim()->toString(),
            'source_label' => $this->string('sourceLabel')->trim()->toString(),
            'target_label' => $this->string('targetLabel')->trim()->toString(),
        ];
    }
}

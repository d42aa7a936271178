<?php

declare(strict_types=1);

namespace App\Http\Requests\Board;

use App\Models\Migration;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class AddDatasetRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:100', Rule::unique('datasets')->where('migration_id', $this->migration()->id)]];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.unique' => 'This migration has a dataset of this name already. Choose another name.',
            'name.required' => 'Give the dataset a name.',
        ];
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    private function migration(): Migration
    {
        $migration = $this->route('migration');

        return $migration instanceof Migration ? $migration : throw new \LogicException('The route binds a migration.');
    }
}

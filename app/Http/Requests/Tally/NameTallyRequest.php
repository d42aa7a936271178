<?php

declare(strict_types=1);

namespace App\Http\Requests\Tally;

use Illuminate\Foundation\Http\FormRequest;

final class NameTallyRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['name' => ['present', 'nullable', 'string', 'max:100'], 'remark' => ['present', 'nullable', 'string', 'max:2000']];
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    public function remark(): string
    {
        return $this->string('remark')->trim()->toString();
    }
}

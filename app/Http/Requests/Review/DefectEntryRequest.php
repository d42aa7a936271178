<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use Illuminate\Foundation\Http\FormRequest;

final class DefectEntryRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['mends' => ['present', 'nullable', 'string', 'max:200'], 'due' => ['present', 'nullable', 'date_format:Y-m-d']];
    }

    public function mends(): string
    {
        return $this->string('mends')->trim()->toString();
    }

    public function due(): ?string
    {
        $due = $this->string('due')->toString();

        return $due === '' ? null : $due;
    }
}

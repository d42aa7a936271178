<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Intake\LineEnds;

final class CorrectFormatRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['delimiter' => [Rule::in(DelimitedFormat::DELIMITERS)], 'lineEnds' => [Rule::enum(LineEnds::class)]];
    }

    public function delimiter(): ?string
    {
        return $this->has('delimiter') ? $this->string('delimiter')->toString() : null;
    }

    public function lineEnds(): ?LineEnds
    {
        return LineEnds::tryFrom($this->string('lineEnds')->toString());
    }
}

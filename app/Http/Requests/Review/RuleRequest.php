<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use App\Models\Decision;
use App\Models\RulingScope;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class RuleRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'scope' => ['required', Rule::in(['row', 'cell', 'pattern', 'class'])],
            'target' => ['required', 'string', 'max:40'],
            'decision' => ['required', Rule::enum(Decision::class)],
            'reason' => ['present', 'nullable', 'string', 'max:2000'],
            'seenAct' => ['required', 'integer', 'min:0'],
        ];
    }

    public function scope(): RulingScope
    {
        return RulingScope::from($this->string('scope')->toString());
    }

    /** A sequence, a pattern's number or a row class. */
    public function target(): string
    {
        return $this->string('target')->toString();
    }

    public function decision(): Decision
    {
        return Decision::from($this->string('decision')->toString());
    }

    public function reason(): string
    {
        return $this->string('reason')->trim()->toString();
    }

    public function seenAct(): int
    {
        return $this->integer('seenAct');
    }
}

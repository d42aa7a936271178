<?php

declare(strict_types=1);

namespace App\Http\Requests\Sign;

use Illuminate\Foundation\Http\FormRequest;

/** Which limit is let pass, why and until when; or which waiver is taken back, and why. */
final class WaiveRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'limit' => ['required', 'string', 'max:2100'],
            'reason' => ['required', 'string', 'max:2000'],
            'isLifted' => ['boolean'],
            'endsOn' => ['required_unless:isLifted,true', 'nullable', 'date_format:Y-m-d', 'after_or_equal:today'],
            'ticket' => ['nullable', 'string', 'max:200'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'reason.required' => 'Say why: it is the first thing that a reader of the report sees.',
            'endsOn.required_unless' => 'Say until which day the waiver counts.',
            'endsOn.after_or_equal' => 'This day is over. Choose today or a later one.',
        ];
    }

    public function limit(): string
    {
        return $this->string('limit')->toString();
    }

    public function reason(): string
    {
        return $this->string('reason')->trim()->toString();
    }

    public function isLifted(): bool
    {
        return $this->boolean('isLifted');
    }

    public function endsOn(): string
    {
        return $this->string('endsOn')->toString();
    }

    public function ticket(): ?string
    {
        $ticket = $this->string('ticket')->trim()->toString();

        return $ticket === '' ? null : $ticket;
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Sign;

use App\Models\SignatureAct;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Why the signatures on a tally are taken back. */
final class EndRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'act' => ['required', Rule::in([SignatureAct::Returned->value, SignatureAct::Withdrawn->value])],
            'reason' => ['required', 'string', 'max:2000'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required' => 'Say why: whoever signed before you will read it.'];
    }

    public function act(): SignatureAct
    {
        return SignatureAct::from($this->string('act')->toString());
    }

    public function reason(): string
    {
        return $this->string('reason')->trim()->toString();
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use App\Policies\Act;
use Carbon\CarbonImmutable;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class TokenRequest extends FormRequest
{
    private const LONGEST_DAYS = 366;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:60'],
            'password' => ['required', 'string', 'max:1000'],
            'scopes' => ['required', 'list', 'min:1'],
            'scopes.*' => ['distinct', Rule::in(array_map(static fn(Act $act): string => $act->value, Act::ofTokens()))],
            'lastDay' => [
                'required',
                'date_format:Y-m-d',
                'after_or_equal:today',
                'before_or_equal:'.CarbonImmutable::today()->addDays(self::LONGEST_DAYS)->toDateString(),
            ],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.required' => 'Say what the token is for, so that you know it again.',
            'scopes.required' => 'Choose what the token may do.',
            'lastDay.after_or_equal' => 'This day is over. Choose today or a later one.',
            'lastDay.before_or_equal' => 'A token lasts a year at most. Choose an earlier day.',
        ];
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }

    /** @return list<Act> */
    public function scopes(): array
    {
        return array_values(array_map(static fn(mixed $scope): Act => Act::from(is_string($scope) ? $scope : ''), $this->array('scopes')));
    }

    public function lastDay(): CarbonImmutable
    {
        return CarbonImmutable::parse($this->string('lastDay')->toString());
    }
}
